<script lang="ts">
	// A board at a glance: its outline, roots and sockets.
	import type { Sheet, Socket } from '$lib/api/types.gen';
	import Sketch from './Sketch.svelte';

	let { sheet, marked = [] }: { sheet: Sheet; marked?: readonly string[] } = $props();
	const line = $derived(Math.max(sheet.board.widthMM, sheet.board.heightMM) / 110);
	const fill = (k: Socket) =>
		marked.includes(k.id) ? 'fill-over' : k.lanes ? 'fill-water-3' : 'fill-water-1';
</script>

<Sketch
	{sheet}
	{line}
	socketLine={line * 0.6}
	corner={line * 3}
	tint={(k) => 'stroke-ink ' + fill(k)}
	class="h-24 w-full"
	aria-hidden="true"
/>
