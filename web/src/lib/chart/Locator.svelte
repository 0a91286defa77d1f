<script lang="ts">
	// A small picture of the board with one socket marked: where a step happens.
	import type { Sheet } from '$lib/api/types.gen';

	interface Props {
		sheet: Sheet;
		socket: string;
	}
	let { sheet, socket }: Props = $props();
	const slot = $derived(socket.split('/')[0]); // a carrier's position is where its slot is
	const at = $derived(sheet.sockets.find((k) => k.id === slot));
	const size = $derived(Math.max(sheet.board.widthMM, sheet.board.heightMM));
	const line = $derived(size / 140);
</script>

{#if at}
	<svg
		viewBox="{-line} {-line} {sheet.board.widthMM + 2 * line} {sheet.board.heightMM + 2 * line}"
		class="h-auto w-full"
		role="img"
		aria-label="{socket} on the board{at.where ? ': ' + at.where : ''}"
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
				rx={line * 4}
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
				class={k.id === slot ? 'fill-over stroke-over' : 'fill-none stroke-soft'}
				stroke-width={line}
			/>
		{/each}
		<path
			d="M{at.place.xMM + at.place.widthMM / 2} 0V{sheet.board.heightMM}M0 {at.place.yMM +
				at.place.heightMM / 2}H{sheet.board.widthMM}"
			class="fill-none stroke-over"
			stroke-width={line * 0.7}
			stroke-dasharray="{line * 3} {line * 2}"
		/>
	</svg>
{/if}
