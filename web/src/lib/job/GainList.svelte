<script lang="ts">
	// What was measured before and after, a line each.
	import type { GainLine } from '$lib/api/types.gen';
	import Mark from '$lib/ui/Mark.svelte';

	let { gained }: { gained: readonly GainLine[] } = $props();
</script>

<ul>
	{#each gained as { what, says, verdict }, i (i)}
		<li class="flex break-inside-avoid gap-2 py-0.5">
			<Mark
				grade={verdict === 'better' ? 'good' : verdict === 'worse' ? 'warns' : 'notes'}
				size={18}
				label={verdict === 'better' || verdict === 'worse' ? verdict : 'no change'}
			/>
			<span>{what}: {says}</span>
		</li>
	{/each}
</ul>
