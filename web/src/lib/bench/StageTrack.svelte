<script lang="ts">
	// How far a job has come: four marks on a line, the present one filled.
	import type { Status } from '$lib/api/types.gen';

	const STAGES = ['fit', 'work order', 'prove', 'hand over'] as const;
	let { status }: { status: Status } = $props();
	const at = $derived(
		status.stage === 'closed'
			? STAGES.length
			: STAGES.indexOf(status.stage as (typeof STAGES)[number])
	);
</script>

<div class="grid content-start">
	<span class="block font-semibold first-letter:uppercase">{status.stage}</span>
	<svg viewBox="0 0 132 16" class="h-4 w-33" aria-hidden="true">
		<path d="M8 8h116" class="stroke-line" stroke-width="2" />
		<path d="M8 8h{Math.min(at, 3) * 38.6}" class="stroke-water-5" stroke-width="6" />
		{#each STAGES as s, i (s)}
			<circle
				cx={8 + i * 38.6}
				cy="8"
				r={i === at ? 6.5 : 4}
				class={i < at ? 'fill-water-5' : i === at ? 'fill-ink' : 'fill-paper stroke-line stroke-2'}
			/>
		{/each}
	</svg>
	{#if status.of}
		<span class="text-soft">{status.at} of {status.of}: {status.name}</span>
	{/if}
</div>
