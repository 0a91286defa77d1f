<script lang="ts">
	// A part onto the shelf, by what is printed on it.
	import { Button, Input, Label, Select } from 'flowbite-svelte';
	import { api } from '$lib/api/client';
	import { refused } from '$lib/api/refused';
	import { toasts } from '$lib/ui/toasts.svelte';
	import { who } from '$lib/ui/who.svelte';
	import { CONDITIONS, type Condition } from './conditions';
	import Meaning from './Meaning.svelte';
	import { type Shelf } from './shelf.svelte';

	let { shelf }: { shelf: Shelf } = $props();
	let words = $state('');
	let says = $state('');
	let price = $state('');
	let condition = $state<Condition | ''>('');
	let serials = $state('');

	/** Names what is being added: pressed again after a lost answer, it is there once. */
	let adding = { of: '', key: '' };

	async function add(e: SubmitEvent) {
		e.preventDefault();
		try {
			const body = {
				text: words,
				price: String(price ?? ''),
				serials,
				by: who.name,
				...(condition && { condition })
			};
			const of = JSON.stringify(body);
			if (adding.of !== of) adding = { of, key: crypto.randomUUID() };
			shelf.put(await api.quickAdd({ ...body, key: adding.key }));
			adding = { of: '', key: '' };
			toasts.add('done', `On the shelf: ${says || words}`);
			words = serials = price = '';
		} catch (err) {
			refused(err);
		}
	}
</script>

<form class="grid gap-2 border border-line bg-land/50 p-3" onsubmit={add} aria-label="Quick add">
	<div class="flex flex-wrap items-end gap-2">
		<div class="min-w-64 flex-1">
			<Label for="words">Type or paste what is printed on it</Label>
			<Input
				id="words"
				bind:value={words}
				required
				maxlength={300}
				autocomplete="off"
				spellcheck="false"
				placeholder="2x16 DDR4-3200 DIMM, 1TB nvme 2280 gen4 x4, or a module's label"
			/>
		</div>
		<div class="w-28">
			<Label for="price">Price of one</Label>
			<Input id="price" type="number" min="0" step="0.01" bind:value={price} />
		</div>
		<div class="w-32">
			<Label for="condition">Condition</Label>
			<Select id="condition" bind:value={condition} placeholder="" items={CONDITIONS} />
		</div>
		<div class="w-44">
			<Label for="serials">Serial numbers</Label>
			<Input id="serials" bind:value={serials} maxlength={2000} autocomplete="off" />
		</div>
		<Button type="submit">Put it on the shelf</Button>
	</div>
	<Meaning bind:words bind:says />
</form>
