<script lang="ts">
	// The two answers to "and the old modules?".
	import { Button, TableBodyCell, TableBodyRow } from 'flowbite-svelte';
	import type { Variant } from '$lib/api/types.gen';
	import Table from '$lib/ui/Table.svelte';

	interface Props {
		variants: readonly Variant[];
		onuse?: (v: Variant) => void;
	}
	let { variants, onuse }: Props = $props();
</script>

<h3 class="mt-1 font-normal text-soft">With and without the old modules</h3>
<Table
	caption="With and without the old modules"
	heads={[{ text: 'Choice' }, { text: 'Comes to' }, { text: 'Use' }]}
	bare
>
	{#each variants as v (v.name)}
		<TableBodyRow>
			<th scope="row" class="py-1.5 pr-3 text-left">{v.name}</th>
			<TableBodyCell>
				{v.memory.says}{#if v.memory.peak}<br />
					<span class="text-soft">peak {v.memory.peak}</span>{/if}
			</TableBodyCell>
			<TableBodyCell class="py-1 text-right">
				{#if v.current}
					<span class="text-soft">in plan</span>
				{:else if onuse}
					<Button color="alternative" size="sm" aria-label="Use: {v.name}" onclick={() => onuse(v)}
						>Use</Button
					>
				{/if}
			</TableBodyCell>
		</TableBodyRow>
	{/each}
</Table>
