<script lang="ts">
	// A board at a glance: its outline, roots and sockets.
	import type { Sheet } from '$lib/api/types.gen';

	let { sheet, marked = [] }: { sheet: Sheet; marked?: readonly string[] } = $props();
	const line = $derived(Math.max(sheet.board.widthMM, sheet.board.heightMM) / 110);
</script>

<svg
	viewBox="{-line} {-line} {sheet.board.widthMM + 2 * line} {sheet.board.heightMM + 2 * line}"
	class="h-24 w-full"
	aria-hidden="true"
>
	<rect
		width={sheet.board.widthMM}
		height={sheet.board.heightMM}
		class="fill-raised stroke-line"
		stroke-width={line}
	/>
	{#each sheet.roots as r (r.id)}
		<rect
			x={r.place.xMM}
			y={r.place.yMM}
			width={r.place.widthMM}
			height={r.place.heightMM}
			rx={line * 3}
			class="fill-land stroke-coast"
			stroke-width={line}
		/>
	{/each}
	{#each sheet.sockets as k (k.id)}
		<rect
			x={k.place.xMM}
			y={k.place.yMM}
			width={k.place.widthMM}
			height={k.place.heightMM}
			class={[
				'stroke-ink',
				marked.includes(k.id) ? 'fill-over' : k.lanes ? 'fill-water-3' : 'fill-water-1'
			]}
			stroke-width={line * 0.6}
		/>
	{/each}
</svg>
