<script lang="ts">
	// Before the order: what to lay out, how long it takes, and the layers from the side.
	import { resolve } from '$app/paths';
	import { Accordion, AccordionItem } from 'flowbite-svelte';
	import { onMount } from 'svelte';
	import * as ask from '$lib/step/api';
	import type { BenchView } from '$lib/api/types.gen';
	import { useSession } from '$lib/job/session.svelte';
	import Quiet from '$lib/ui/Quiet.svelte';
	import Exploded from './Exploded.svelte';
	import PickList from './PickList.svelte';

	const get = useSession();
	const session = $derived(get());
	const view = $derived(session.view);
	let bench = $state.raw<BenchView>();
	const look = () => ask.bench(session.job.id).then((b) => (bench = b));
	onMount(() => void look());
	async function takePractice() {
		if (await session.change({ do: 'practice', practice: bench?.practice })) await look();
	}
	const pick = $derived(bench?.pick ?? view.pick);
	const short = $derived(pick.filter((l) => l.short).length);
	const off = $derived(view.off.filter((o) => !o.lead).map((o) => o.layer));
	const screws = $derived(view.tray.reduce((n, c) => n + c.fastener.count, 0));
</script>

<p class="no-print flex flex-wrap items-center gap-x-4 pb-1">
	<a class="flex min-h-11 items-center underline" href={resolve('/practice')}>The shop’s practice</a
	>
	{#if bench?.practice && !session.closed}
		<span>This job follows another.</span>
		<Quiet onclick={takePractice}>Take the shop’s</Quiet>
	{/if}
</p>
<Accordion multiple flush class="pb-4">
	<AccordionItem>
		{#snippet header()}<span
				>Lay out: {pick.length}
				{pick.length === 1 ? 'thing' : 'things'}{short ? `, ${short} not there` : ''}{bench
					? ` · ${bench.says}`
					: ''}</span
			>{/snippet}
		<PickList list={pick} />
	</AccordionItem>
	{#if view.layers.length > 0}
		<AccordionItem>
			{#snippet header()}<span
					>Layers: {view.layers.length}, {screws}
					{screws === 1 ? 'loose screw' : 'loose screws'}</span
				>{/snippet}
			<Exploded sheet={session.job.sheet} layers={view.layers} {off} />
		</AccordionItem>
	{/if}
</Accordion>
