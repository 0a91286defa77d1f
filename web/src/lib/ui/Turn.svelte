<script lang="ts">
	// What stands in it is built in a turn of its own: the browser paints and answers in
	// between, where all of a large view at once would hold it for a third of a second.
	import type { Snippet } from 'svelte';

	let { children }: { children: Snippet } = $props();
	let come = $state(false);
	$effect(() => {
		const turn = setTimeout(() => (come = true));
		return () => clearTimeout(turn);
	});
</script>

{#if come}{@render children()}{/if}
