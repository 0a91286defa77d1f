<script lang="ts">
	// The head of a fastener from above: a cross, a star, a blade, a hexagon, or a knurled edge
	// for what is turned by hand.
	import type { Fastener } from '$lib/api/types.gen';

	interface Props {
		bit: Fastener['bit'];
		x: number;
		y: number;
		r: number;
		/** It stays in its layer. */
		captive: boolean;
	}
	let { bit, x, y, r, captive }: Props = $props();
	const star = $derived(bit?.startsWith('T'));
	const points = (n: number, from: number) =>
		Array.from({ length: n }, (_, i) => {
			const a = from + (i * 2 * Math.PI) / n;
			return `${x + r * 0.62 * Math.cos(a)},${y + r * 0.62 * Math.sin(a)}`;
		}).join(' ');
</script>

<g class="stroke-over" stroke-width={r * 0.24}>
	<circle
		cx={x}
		cy={y}
		{r}
		class="fill-raised"
		stroke-dasharray={bit === 'by hand' ? `${r * 0.3} ${r * 0.18}` : undefined}
	/>
	{#if bit?.startsWith('PH')}
		<path d="M{x - r * 0.55} {y}h{r * 1.1}M{x} {y - r * 0.55}v{r * 1.1}" />
	{:else if star}
		<path
			d="M{x - r * 0.6} {y}h{r * 1.2}M{x - r * 0.3} {y - r * 0.52}l{r * 0.6} {r * 1.04}M{x +
				r * 0.3} {y - r * 0.52}l{-r * 0.6} {r * 1.04}"
		/>
	{:else if bit?.startsWith('flat')}
		<path d="M{x - r * 0.7} {y}h{r * 1.4}" />
	{:else if bit?.startsWith('hex')}
		<polygon points={points(6, 0)} class="fill-none" />
	{:else}
		<circle cx={x} cy={y} r={r * 0.3} class="fill-over" />
	{/if}
	{#if captive}
		<circle cx={x} cy={y} r={r * 1.45} class="fill-none" stroke-width={r * 0.14} />
	{/if}
</g>
