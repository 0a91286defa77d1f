<script lang="ts">
	// Photographs taken at the steps of a job: how it looked before, and how it looks now. The
	// server writes them anew, without where and when a camera says they were taken.
	import { onMount } from 'svelte';
	import * as ask from '$lib/step/api';
	import { refused } from '$lib/api/refused';
	import type { SheetPicture, Step } from '$lib/api/types.gen';
	import { useSession } from '$lib/job/session.svelte';
	import FileButton from '$lib/ui/FileButton.svelte';
	import Quiet from '$lib/ui/Quiet.svelte';
	import { when } from '$lib/ui/text';
	import { who } from '$lib/ui/who.svelte';

	let { step }: { step: Step } = $props();
	const get = useSession();
	const session = $derived(get());
	const of = $derived(`/jobs/${encodeURIComponent(session.job.id)}`);
	const says = $derived(step.do.slice(0, 120));
	let all = $state.raw<readonly SheetPicture[]>([]);
	let everything = $state(false);
	let busy = $state(false);
	let large = $state('');
	const shown = $derived(everything ? all : all.filter((p) => p.says === says));

	async function run(what: () => Promise<SheetPicture[]>) {
		busy = true;
		try {
			all = await what();
		} catch (e) {
			refused(e);
		} finally {
			busy = false;
		}
	}
	onMount(() => void run(() => ask.pictures(of)));
	const drop = (p: SheetPicture) => {
		if (confirm('Take this photograph away? It is kept nowhere else here.'))
			void run(() => ask.dropPicture(of, p.id));
	};
</script>

<section aria-labelledby="photos-h" data-testid="photos">
	<h2 id="photos-h" class="text-lg">Photographs</h2>
	<ul class="grid gap-2">
		{#each shown as p (p.id)}
			<li>
				<button
					class="block"
					aria-pressed={large === p.id}
					aria-label="{large === p.id ? 'Smaller' : 'Larger'}: {p.says}, {when(p.at)}"
					onclick={() => (large = large === p.id ? '' : p.id)}
				>
					<img
						class={['h-auto border border-line', large === p.id ? 'w-full' : 'w-40']}
						src="/api{of}/pictures/{p.id}"
						alt="{p.says}, {when(p.at)}"
						width={p.width}
						height={p.height}
						loading="lazy"
					/>
				</button>
				<p class="text-soft">
					{everything ? `${p.says} · ` : ''}{when(p.at)}{p.by ? `, ${p.by}` : ''}
					<Quiet
						aria-label="Take away the photograph of {when(p.at)}: {p.says}"
						onclick={() => drop(p)}>Take away</Quiet
					>
				</p>
			</li>
		{/each}
	</ul>
	<FileButton
		label="Photograph of this step"
		accept="image/*"
		disabled={busy || session.closed}
		ontake={(file) => run(() => ask.keepPicture(of, file, says, who.name, crypto.randomUUID()))}
		>Photograph…</FileButton
	>
	{#if all.length > shown.length || everything}
		<Quiet onclick={() => (everything = !everything)}
			>{everything ? 'Only of this step' : `All ${all.length}`}</Quiet
		>
	{/if}
</section>
