<script lang="ts">
	// Lanes as ribbons: as wide as what is wired, and filled as far as it flows.
	import type { Ribbon } from './drawing';

	let { ribbons }: { ribbons: readonly Ribbon[] } = $props();
</script>

{#each ribbons as r (r.id)}
	<path d={r.d} class="fill-none stroke-line" stroke-width={r.wired + 2} />
	<path d={r.d} class="fill-none stroke-raised" stroke-width={r.wired} />
	{#if r.flows > 0}
		<path
			d={r.d}
			class="fill-none transition-[stroke-width] duration-200"
			stroke-width={r.flows}
			stroke="var(--water-{r.depth})"
			stroke-opacity={r.idle ? 0.55 : 1}
		/>
	{/if}
{/each}
