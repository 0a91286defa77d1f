<script lang="ts">
	// One figure month by month: a bar each, the highest as high as the row.
	import { scaleBand, scaleLinear } from 'd3-scale';

	interface Props {
		months: readonly string[];
		values: readonly number[];
		/** The highest of all rows of the table: bars can be held against each other. */
		most: number;
		says: string;
	}
	let { months, values, most, says }: Props = $props();
	const WIDE = 300;
	const HIGH = 34;
	const x = $derived(
		scaleBand<number>()
			.domain(months.map((_, i) => i))
			.range([0, WIDE])
			.padding(0.15)
	);
	const y = $derived(scaleLinear().domain([0, most]).range([0, HIGH]));
</script>

<svg viewBox="0 0 {WIDE} {HIGH + 2}" class="h-9 w-full max-w-80" role="img" aria-label={says}>
	<line x1="0" x2={WIDE} y1={HIGH + 1} y2={HIGH + 1} class="stroke-coast" />
	{#each values as v, i (i)}
		{#if months[i]?.endsWith('-01')}
			<line x1={x(i)} x2={x(i)} y1="0" y2={HIGH + 1} class="stroke-line" stroke-dasharray="2 2" />
		{/if}
		{#if v > 0}
			<rect
				x={x(i)}
				width={x.bandwidth()}
				y={HIGH + 1 - Math.max(2, y(v))}
				height={Math.max(2, y(v))}
				class="fill-water-5"
			/>
		{/if}
	{/each}
</svg>
