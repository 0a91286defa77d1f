<script lang="ts">
	// A board drawn small: its outline, its roots and its sockets, each in a tint of the
	// user's. What is drawn over it comes as children.
	import type { Snippet } from 'svelte';
	import type { SVGAttributes } from 'svelte/elements';
	import type { Sheet, Socket } from '$lib/api/types.gen';

	interface Props extends SVGAttributes<SVGSVGElement> {
		sheet: Sheet;
		/** Widths of lines and the radius of a root's corner, mm of the board. */
		line: number;
		socketLine: number;
		corner: number;
		tint: (k: Socket) => string;
		children?: Snippet;
	}
	let { sheet, line, socketLine, corner, tint, children, ...rest }: Props = $props();
</script>

<svg
	viewBox="{-line} {-line} {sheet.board.widthMM + 2 * line} {sheet.board.heightMM + 2 * line}"
	{...rest}
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
			rx={corner}
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
			class={tint(k)}
			stroke-width={socketLine}
		/>
	{/each}
	{@render children?.()}
</svg>
