<script lang="ts">
	// What room is left: bays for drives, lanes for links.
	import { useDesk } from './desk.svelte';

	const desk = useDesk();
</script>

{#if desk.session.job.sheet.bays?.length}
	<h3>Bays</h3>
	<ul>
		{#each desk.resolved.bays as b (b.bay)}
			<li>
				<strong>{b.bay}</strong>
				{#if b.item}<strong class="text-over">{desk.name(b.item)}</strong>,{/if}
				{b.says}
			</li>
		{/each}
	</ul>
{/if}
{#if desk.resolved.lanes.length > 0}
	<h3 class="mt-2">Lanes</h3>
	<ul>
		{#each desk.resolved.lanes as l (l.group)}
			<li><strong>{l.group}</strong> {l.says}</li>
		{/each}
	</ul>
{/if}
