<script lang="ts">
	// What stands in it is built in a turn of its own: the browser paints and answers in
	// between, where all of a large view at once would hold it for a third of a second.
	import type { Snippet } from 'svelte';

	let { children }: { children: Snippet } = $props();
	let come = $state(false);
	const UNSEEN = 60; // ms: a tab that nobody sees has no frames
	$effect(() => {
		// After the next frame: what that has to lay out is not added to this.
		let turn = setTimeout(next, UNSEEN);
		function next() {
			clearTimeout(turn);
			turn = setTimeout(() => (come = true));
		}
		const frame = requestAnimationFrame(next);
		return () => {
			cancelAnimationFrame(frame);
			clearTimeout(turn);
		};
	});
</script>

{#if come}{@render children()}{/if}
