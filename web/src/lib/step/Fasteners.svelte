<script lang="ts">
	// The kinds of screw of one layer, to be set right.
	import { Button, Input, Label, Select } from 'flowbite-svelte';
	import type { Fastener } from '$lib/api/types.gen';
	import { BITS, THREADS } from './choices';

	let { list = $bindable() }: { list: Fastener[] } = $props();
	const items = (all: readonly string[]) => all.map((v) => ({ value: v, name: v }));
</script>

{#each list as f, i (i)}
	<fieldset class="grid grid-cols-2 gap-2 border border-line p-2 sm:grid-cols-4">
		<legend class="px-1">Screws {i + 1}</legend>
		<Label>How many<Input type="number" min={1} max={64} required bind:value={f.count} /></Label>
		<Label>Driver<Select items={items(BITS)} bind:value={f.bit} placeholder="not known" /></Label>
		<Label
			>Thread<Select items={items(THREADS)} bind:value={f.thread} placeholder="not known" /></Label
		>
		<Label
			>Length, mm<Input type="number" min={1} max={200} step="0.5" bind:value={f.lengthMM} /></Label
		>
		{#if f.where}<p class="col-span-full text-soft">{f.where}</p>{/if}
		<Button
			class="col-span-full"
			color="alternative"
			aria-label="There are none of these: screws {i + 1}"
			onclick={() => (list = list.filter((x) => x !== f))}>There are none of these</Button
		>
	</fieldset>
{/each}
<Button color="alternative" onclick={() => (list = [...list, { count: 1 }])}
	>Another kind of screw</Button
>
