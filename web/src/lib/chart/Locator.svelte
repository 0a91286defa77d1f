<script lang="ts">
	// A small picture of the board with one socket marked: where a step happens.
	import type { Sheet } from '$lib/api/types.gen';
	import Sketch from './Sketch.svelte';

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
	<Sketch
		{sheet}
		{line}
		socketLine={line}
		corner={line * 4}
		tint={(k) => (k.id === slot ? 'fill-over stroke-over' : 'fill-none stroke-soft')}
		class="h-auto w-full"
		role="img"
		aria-label="{socket} on the board{at.where ? ': ' + at.where : ''}"
	>
		<path
			d="M{at.place.xMM + at.place.widthMM / 2} 0V{sheet.board.heightMM}M0 {at.place.yMM +
				at.place.heightMM / 2}H{sheet.board.widthMM}"
			class="fill-none stroke-over"
			stroke-width={line * 0.7}
			stroke-dasharray="{line * 3} {line * 2}"
		/>
	</Sketch>
{/if}
