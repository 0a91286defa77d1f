<script lang="ts">
	// The board of the draft to scale: sockets are dragged to their places and chosen.
	import Board from '$lib/chart/Board.svelte';
	import { useDraft } from './draft.svelte';
	import Place from './Place.svelte';

	let { chosen = $bindable() }: { chosen: string | undefined } = $props();
	const get = useDraft();
	const draft = $derived(get());

	function onmove(id: string, xMM: number, yMM: number) {
		const place = draft.sheet.sockets.find((k) => k.id === id)?.place;
		const { widthMM, heightMM } = draft.sheet.board;
		if (!place) return;
		place.xMM = Math.max(0, Math.min(widthMM - place.widthMM, xMM));
		place.yMM = Math.max(0, Math.min(heightMM - place.heightMM, yMM));
	}
</script>

<section aria-label="Board" class="min-w-0">
	{#if draft.check?.empty}
		<Board
			sheet={draft.sheet}
			resolved={draft.check.empty}
			title="Board of the {draft.sheet.name}, as written"
			{chosen}
			onsocket={(id) => (chosen = id)}
			{onmove}
			onhold={() => draft.hold()}
			onrelease={() => draft.release()}
		/>
	{:else}
		<!-- Its room, until the core has answered. -->
		<div style:aspect-ratio="{draft.sheet.board.widthMM} / {draft.sheet.board.heightMM}"></div>
	{/if}
	{#if chosen}
		<section aria-label="The chosen socket" class="mt-2 border-l-4 border-ink pl-3">
			<Place id={chosen} />
		</section>
	{:else}
		<p class="mt-2 text-soft">
			Choose a socket on the board to place it. What is not stated stays unknown, and is never taken
			for a yes.
		</p>
	{/if}
</section>
