<script lang="ts">
	// The chain of facts behind an answer, each with where it comes from.
	import type { Reason } from '$lib/api/types.gen';
	let { because }: { because: readonly Reason[] } = $props();
</script>

{#if because.length > 0}
	<ol class="grid gap-1 border-l-4 border-water-4 pl-3">
		{#each because as r, i (i)}
			<li>{r.says} <span class="text-soft">({r.from})</span></li>
		{/each}
	</ol>
{/if}
