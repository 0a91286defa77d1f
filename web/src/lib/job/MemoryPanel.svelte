<script lang="ts">
	// What the memory comes to.
	import type { MemoryAnswer, Variant } from '$lib/api/types.gen';
	import Fetched from '$lib/ui/Fetched.svelte';
	import Reasons from '$lib/ui/Reasons.svelte';

	interface Props {
		memory: MemoryAnswer;
		variants: readonly Variant[];
		onuse?: (v: Variant) => void;
	}
	let { memory, variants, onuse }: Props = $props();
	const most = $derived(Math.max(1, ...memory.channels.map((c) => c.bytes)));
</script>

<section aria-label="Memory">
	<p class="text-2xl font-semibold" data-testid="memory-total">{memory.total}</p>
	<p data-testid="memory-speed">
		{memory.speed ? `${memory.speed} · ${memory.spread} · peak ${memory.peak}` : memory.spread}
	</p>
	<div class="my-2 flex gap-4" aria-hidden="true">
		{#each memory.channels as c (c.channel)}
			<div class="grow">
				<div class="h-3 bg-water-1">
					<div class="h-3 bg-water-5" style:width="{(100 * c.bytes) / most}%"></div>
				</div>
				<span class="text-soft">channel {c.channel}</span>
			</div>
		{/each}
	</div>
	{#if memory.because.length > 0}
		<details>
			<summary class="min-h-11 cursor-pointer py-2 text-soft">why this speed</summary>
			<Reasons because={memory.because} />
		</details>
	{/if}
	{#if variants.length > 0}
		<Fetched load={() => import('./MemoryChoices.svelte')} also={{ variants, onuse }} />
	{/if}
</section>
