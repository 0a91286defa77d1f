<script lang="ts">
	// The whole board, small, while a part of it is looked at closer: a press goes there.
	import type { Drawing } from './drawing';
	import type { Zoom } from './zoom.svelte';

	let { chart, zoom }: { chart: Drawing; zoom: Zoom } = $props();
	const seen = $derived(zoom.seen);
</script>

<button
	class="absolute right-1 bottom-1 border-2 border-ink bg-paper"
	aria-label="Map: shows the whole board again"
	onclick={(e) => {
		const box = e.currentTarget.getBoundingClientRect();
		if (e.detail === 0) return zoom.fit(); // by key
		zoom.centre(
			((e.clientX - box.left) / box.width) * chart.width,
			((e.clientY - box.top) / box.height) * chart.height
		);
	}}
>
	<svg
		viewBox="0 0 {chart.width} {chart.height}"
		width={160}
		height={(160 * chart.height) / chart.width}
		aria-hidden="true"
	>
		{#each chart.controls as c (c.socket.id)}
			<rect
				x={c.box.x}
				y={c.box.y}
				width={c.box.w}
				height={c.box.h}
				class={c.state.item ? 'fill-soft' : 'fill-water-3'}
			/>
		{/each}
		<rect
			x={seen.x}
			y={seen.y}
			width={seen.w}
			height={seen.h}
			class="fill-none stroke-over"
			stroke-width={chart.width / 80}
		/>
	</svg>
</button>
