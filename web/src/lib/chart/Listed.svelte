<script lang="ts">
	// On a narrow screen: the sockets as a list, in the order of the board, under a small
	// picture that shows where each is.
	import type { Snippet } from 'svelte';
	import type { Attachment } from 'svelte/attachments';
	import type { Offer, Resolved, Sheet, Socket, SocketState } from '$lib/api/types.gen';
	import Sketch from './Sketch.svelte';

	interface Props {
		sheet: Sheet;
		resolved: Resolved;
		title: string;
		listed: readonly { readonly socket: Socket; readonly state: SocketState }[];
		chosen: string | undefined;
		/** Which one the keyboard comes to. */
		stop: string | undefined;
		words: Snippet<[string, SocketState]>;
		offerAt: (id: string) => Offer | undefined;
		shut: (id: string) => boolean;
		onsocket: (id: string) => void;
		oncome: (id: string) => void;
		onkeydown: (e: KeyboardEvent) => void;
		draggable: ((item: string | undefined) => Attachment<HTMLElement>) | undefined;
	}
	let {
		sheet,
		resolved,
		title,
		listed,
		chosen,
		stop,
		words,
		offerAt,
		shut,
		onsocket,
		oncome,
		onkeydown,
		draggable
	}: Props = $props();

	/** In the small picture: where the chosen socket is, and what holds something. */
	function picture(id: string): string {
		if (chosen === id || chosen?.startsWith(id + '/')) return 'fill-over stroke-over';
		const state = resolved.sockets.find((s) => s.socket === id);
		if (state?.state === 'off' || state?.state === 'stopped') return 'fill-overtint stroke-over';
		return state?.item ? 'fill-soft stroke-ink' : 'fill-paper stroke-ink';
	}
</script>

<Sketch
	{sheet}
	line={Math.max(sheet.board.widthMM, sheet.board.heightMM) / 110}
	socketLine={Math.max(sheet.board.widthMM, sheet.board.heightMM) / 180}
	corner={Math.max(sheet.board.widthMM, sheet.board.heightMM) / 40}
	tint={(k) => picture(k.id)}
	class="mx-auto h-40 w-full"
	role="img"
	aria-label={title}
/>
<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<ul class="mt-2 grid grid-cols-2 gap-1" aria-label="Sockets" {onkeydown}>
	{#each listed as { socket, state } (socket.id)}
		{@const offer = offerAt(socket.id)}
		<li>
			<button
				data-socket={socket.id}
				class={[
					'size-full min-h-12 rounded-sm border px-2 py-1 text-left leading-tight',
					chosen === socket.id
						? 'border-over bg-overtint'
						: 'border-line bg-paper hover:bg-water-1',
					shut(socket.id) && 'cursor-not-allowed border-dashed text-soft'
				]}
				aria-disabled={shut(socket.id) || undefined}
				aria-pressed={chosen === socket.id}
				title={offer?.costs.join('\n')}
				tabindex={stop === socket.id ? 0 : -1}
				onfocus={() => oncome(socket.id)}
				onclick={() => onsocket(socket.id)}
				{@attach draggable?.(state.item)}
			>
				{@render words(socket.id, state)}
			</button>
		</li>
	{/each}
</ul>
