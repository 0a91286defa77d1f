<script lang="ts">
	// A drive that was taken out is wiped: how thoroughly, what that takes, and the record of it.
	import { Button, Checkbox, Radio } from 'flowbite-svelte';
	import type { Fitted } from '$lib/api/types.gen';
	import Dialog from '$lib/ui/Dialog.svelte';
	import Ends from './Ends.svelte';
	import { useSession } from './session.svelte';

	let { open = $bindable(), drive }: { open: boolean; drive: Fitted } = $props();
	const get = useSession();
	const session = $derived(get());
	let level = $state('purge');
	let ends = $state('');
	let read = $state(false);
	const way = $derived(drive.ways?.find((w) => w.level === level));

	async function keep() {
		if (
			await session.change({ do: 'wipe', item: drive.item, value: level, text: ends, sure: read })
		) {
			open = read = false;
			ends = '';
		}
	}
</script>

<Dialog bind:open title="Wiped: {drive.name}">
	<div class="grid gap-3">
		<p class="border-l-4 border-over bg-overtint p-3">
			Nothing brings it back. Two copies that were read back, the owner’s word, and the owner’s
			policy and local law come first. Serial {drive.serial ?? 'not written down'}.
		</p>
		<fieldset class="grid gap-1">
			<legend>How thoroughly</legend>
			{#each drive.ways ?? [] as w (w.level)}
				<Radio bind:group={level} value={w.level} classes={{ label: 'min-h-11' }}>{w.says}</Radio>
			{/each}
		</fieldset>
		<ul class="list-disc pl-5">
			{#each way?.takes ?? [] as t, i (i)}<li>{t}</li>{/each}
		</ul>
		{#if level !== 'destroy'}
			<Checkbox bind:checked={read}
				>Read back afterwards: beginning, middle and end hold nothing</Checkbox
			>
		{/if}
		<Ends
			asks={drive.asks ? [drive.asks] : []}
			what="Wiped: {drive.name}"
			bind:value={ends}
			onenter={() => void keep()}
		/>
		<div class="flex gap-3">
			<Button onclick={keep} aria-busy={session.busy}>It is wiped</Button>
			<Button color="alternative" onclick={() => (open = false)}>Cancel</Button>
		</div>
	</div>
</Dialog>
