<script lang="ts">
	// Where what is picked up can go, the best first, and what it would come to; below, where it
	// cannot, and why.
	import type { Offer } from '$lib/api/types.gen';
	import Mark from '$lib/ui/Mark.svelte';

	interface Props {
		what: string;
		offers: readonly Offer[];
		onsocket: (id: string) => void;
		onleave: () => void;
	}
	let { what, offers, onsocket, onleave }: Props = $props();
	const works = (o: Offer) => o.state === 'live' || o.state === 'unknown';
	const yes = $derived(offers.filter(works));
	const no = $derived(offers.filter((o) => !works(o)));
</script>

<section aria-labelledby="offers-h" class="border-l-4 border-sound pl-3">
	<div class="flex items-center justify-between gap-2">
		<h2 id="offers-h">Where {what} goes</h2>
		<button
			class="min-h-11 shrink-0 rounded-md border border-line px-3 hover:bg-water-1"
			onclick={onleave}>Put it down</button
		>
	</div>
	{#if offers.length === 0}<p class="text-soft">No socket of this machine takes it.</p>{/if}
	<ol class="grid gap-1">
		{#each yes as o, i (o.socket)}
			<li>
				<button
					class="flex min-h-12 w-full items-start gap-2 rounded-sm border border-line px-2 py-1 text-left leading-tight hover:bg-water-1"
					aria-label="Put it into {o.socket}: {[o.says, o.out, ...o.costs]
						.filter(Boolean)
						.join('; ')}"
					onclick={() => onsocket(o.socket)}
				>
					<span
						class="grid size-6 shrink-0 place-items-center rounded-full bg-ink text-paper"
						aria-hidden="true">{i + 1}</span
					>
					<Mark
						grade={o.costs.length > 0 ? 'stops' : o.state === 'unknown' ? 'unknown' : 'good'}
						size={18}
					/>
					<span>
						<strong>{o.socket}</strong>
						{o.says}
						{#if o.out}<span class="block text-over">{o.out}</span>{/if}
						{#each o.costs as c (c)}<span class="block text-over">{c}</span>{/each}
					</span>
				</button>
			</li>
		{/each}
	</ol>
	{#if no.length > 0}
		<h3 class="mt-2 text-soft">Not there</h3>
		<ul class="text-soft">
			{#each no as o (o.socket)}<li><strong>{o.socket}</strong>: {o.says}</li>{/each}
		</ul>
	{/if}
</section>
