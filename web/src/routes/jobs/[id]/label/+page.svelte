<script lang="ts">
	// A label to stick on the machine: what it is, when it was worked on, and a code that opens its
	// job where Deep Bay is served.
	import { resolve } from '$app/paths';
	import { page } from '$app/state';
	import { Button } from 'flowbite-svelte';
	import QR from 'qrcode';
	import { useSession } from '$lib/job/session.svelte';
	import { when } from '$lib/ui/text';

	const get = useSession();
	const session = $derived(get());
	const job = $derived(session.job);
	const r = $derived(session.view.report);
	const link = $derived(page.url.origin + resolve('/jobs/[id]', { id: job.id }));
	const code = $derived(QR.create(link, { errorCorrectionLevel: 'M' }).modules);
	/** The dark fields as one path, a field a unit wide, with the four empty ones that readers ask for. */
	const path = $derived(
		Array.from(code.data, (dark, i) =>
			dark ? `M${String((i % code.size) + 4)} ${String(Math.floor(i / code.size) + 4)}h1v1h-1z` : ''
		).join('')
	);
	const wide = $derived(code.size + 8);
	const closed = $derived(job.closed?.at ?? r.to ?? job.arrived);
</script>

<svelte:head><title>Label: {job.title} · Deep Bay</title></svelte:head>

<div class="no-print flex flex-wrap items-center gap-4 py-2">
	<Button onclick={() => window.print()}>Print</Button>
	<a
		class="flex min-h-11 items-center underline"
		href={resolve('/jobs/[id]/handover', { id: job.id })}>Hand over</a
	>
	<p class="text-soft">90 by 40 mm. The code opens {link}</p>
</div>
<article
	class="flex h-[40mm] w-[90mm] gap-[3mm] overflow-hidden border border-black bg-white p-[2mm] text-black"
	data-testid="label"
>
	<svg
		viewBox="0 0 {wide} {wide}"
		class="size-[35mm] shrink-0"
		shape-rendering="crispEdges"
		role="img"
		aria-label="Code that opens {link}"
	>
		<rect width={wide} height={wide} class="fill-white" />
		<path d={path} class="fill-black" />
	</svg>
	<div class="min-w-0 text-[9pt] leading-tight">
		<h1 class="text-[11pt] font-semibold">{job.title}</h1>
		<p>{[job.tag, job.sheet.name].filter(Boolean).join(' · ')}</p>
		<p>{session.view.planned.memory.says}</p>
		{#each r.fitted.filter((f) => f.serial).slice(0, 3) as f (f.item)}
			<p class="truncate">{f.socket}: {f.name} {f.serial}</p>
		{/each}
		<p>{when(closed)}{r.hands[0] ? `, ${r.hands[0]}` : ''}</p>
	</div>
</article>
