<script lang="ts">
	// Corrections to one kind of part on the shelf.
	import { Button, Input, Label, Select } from 'flowbite-svelte';
	import { api } from '$lib/api/client';
	import { refusal } from '$lib/api/refused';
	import type { Entry, Part, ShelfRow } from '$lib/api/types.gen';
	import PartForm from '$lib/part/PartForm.svelte';
	import Dialog from '$lib/ui/Dialog.svelte';
	import { who } from '$lib/ui/who.svelte';
	import { when } from '$lib/ui/text';
	import { CONDITIONS, type Condition } from './conditions';

	interface Props {
		row: ShelfRow | null;
		/** Somebody else changed it meanwhile: the part as it is now. */
		onstale: (row: ShelfRow) => void;
		onkept: (row: ShelfRow) => void;
		onleave: () => void;
	}
	let { row, onkept, onstale, onleave }: Props = $props();
	const uid = $props.id();
	let open = $derived(row !== null);
	let name = $derived(row?.stock.part.name ?? '');
	let number = $derived(row?.stock.part.number ?? '');
	let count = $derived(row?.stock.count ?? 0);
	let price = $derived(row?.price ?? '');
	let condition = $derived<Condition | ''>(row?.stock.condition ?? '');
	let serials = $derived((row?.stock.serials ?? []).join(' '));
	let part = $state.raw<Part | null>(null);
	let shown = $state(false); // the form of the part, which nobody needs to correct a count
	let fault = $state('');
	let history = $state.raw<Entry[] | null>(null);
	let key = $derived(row && crypto.randomUUID()); // pressed again after a lost answer, it is done once

	$effect(() => {
		if (open || !row) return;
		history = null;
		fault = '';
		onleave();
	});

	async function keep(e: SubmitEvent) {
		e.preventDefault();
		if (!row) return;
		const cents = Math.round(Number(price) * 100);
		try {
			const now = await api.restock(
				{
					part: { ...((shown && part) || row.stock.part), name, ...(number && { number }) },
					count: Number(count),
					...(cents > 0 && { priceCents: cents }),
					...(condition && { condition }),
					serials: serials.split(/\s+/).filter(Boolean)
				},
				{ revision: row.revision, key: key ?? '', by: who.name }
			);
			fault = '';
			onkept(now);
		} catch (err) {
			fault = refusal(err).says;
			if (refusal(err).status === 409) await reload();
		}
	}

	/** Shows it as it is now, and what happened to it: what was typed here is typed again, or left. */
	async function reload() {
		if (!row) return;
		const id = row.stock.part.id;
		onstale(await api.shelfPart(id));
		await look(id);
		const last = history?.at(-1);
		fault = `Changed meanwhile${last ? ` by ${last.by}: ${last.says}` : ''}. It is shown as it is now; nothing of yours was kept.`;
	}

	async function look(id: string) {
		try {
			history = await api.shelfHistory(id);
		} catch (err) {
			fault = refusal(err).says;
		}
	}
</script>

<Dialog bind:open title={row?.stock.part.name ?? 'Part'} size="md">
	<form class="grid gap-3" onsubmit={keep} aria-label="Correct the part">
		<p>{row?.what}</p>
		<div class="grid gap-3 sm:grid-cols-2">
			<div>
				<Label for="{uid}name">Name</Label>
				<Input id="{uid}name" bind:value={name} required maxlength={120} />
			</div>
			<div>
				<Label for="{uid}number">Part number</Label>
				<Input id="{uid}number" bind:value={number} maxlength={80} />
			</div>
			<div>
				<Label for="{uid}count">Count</Label>
				<Input id="{uid}count" type="number" min="0" max="100000" bind:value={count} required />
			</div>
			<div>
				<Label for="{uid}price">Price of one</Label>
				<Input id="{uid}price" type="number" min="0" step="0.01" bind:value={price} />
			</div>
			<div>
				<Label for="{uid}condition">Condition</Label>
				<Select id="{uid}condition" bind:value={condition} placeholder="" items={CONDITIONS} />
			</div>
			<div>
				<Label for="{uid}serials">Serial numbers, blanks between</Label>
				<Input id="{uid}serials" bind:value={serials} />
			</div>
		</div>
		<details bind:open={shown}>
			<summary class="min-h-11 cursor-pointer py-2">What its label says</summary>
			{#if shown && row}
				{#key row.stock.part.id}
					<PartForm start={row.stock.part} bind:part />
				{/key}
			{/if}
		</details>
		{#if fault}<p role="alert" class="text-over">{fault}</p>{/if}
		<details ontoggle={(e) => e.currentTarget.open && row && look(row.stock.part.id)}>
			<summary class="min-h-11 cursor-pointer py-2">What happened to it</summary>
			{#if history}
				<ol reversed class="max-h-48 overflow-y-auto border-t border-line" aria-label="History">
					{#each [...history].reverse() as h (h.revision)}
						<li class="border-b border-line py-1">
							{h.says}
							<span class="block text-soft">{h.by}, {when(h.at)}</span>
						</li>
					{/each}
				</ol>
			{:else}
				<p class="text-soft">Looking it up…</p>
			{/if}
		</details>
		<div class="flex gap-3">
			<Button type="submit" disabled={shown && !part}>Save</Button>
			<Button color="alternative" onclick={() => (open = false)}>Cancel</Button>
		</div>
	</form>
</Dialog>
