<script lang="ts">
	// That there were jobs which are no longer here: archived, or deleted for their owner.
	import { api } from '$lib/api/client';
	import { refusal } from '$lib/api/refused';
	import type { Gone } from '$lib/api/types.gen';
	import { when } from '$lib/ui/text';

	let list = $state.raw<readonly Gone[] | null>(null);
	let fault = $state('');

	async function look() {
		fault = '';
		try {
			list = await api.gone();
		} catch (e) {
			fault = refusal(e).says;
		}
	}
</script>

<details class="my-6" ontoggle={(e) => e.currentTarget.open && look()}>
	<summary class="min-h-11 cursor-pointer py-2 text-soft">No longer here</summary>
	{#if fault}
		<p role="alert" class="text-over">{fault}</p>
	{:else if !list}
		<p class="text-soft">Looking it up…</p>
	{:else if list.length === 0}
		<p>No job was archived, and none deleted.</p>
	{:else}
		<ul class="grid gap-1" aria-label="Jobs that are no longer here">
			{#each list as g, i (i)}
				<li><span class="text-soft">{when(g.at)}, {g.by}:</span> {g.says}</li>
			{/each}
		</ul>
	{/if}
</details>
