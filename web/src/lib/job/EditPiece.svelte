<script lang="ts">
	// What was written of a piece, to be corrected: what it is called, its numbers, what it
	// holds, and what its label says.
	import { Button, Checkbox, Input, Label, Select } from 'flowbite-svelte';
	import { api } from '$lib/api/client';
	import { refused } from '$lib/api/refused';
	import type { Change, Item, Part } from '$lib/api/types.gen';
	import PartForm from '$lib/part/PartForm.svelte';
	import Dialog from '$lib/ui/Dialog.svelte';
	import ScanCode from '$lib/ui/ScanCode.svelte';
	import { toasts } from '$lib/ui/toasts.svelte';
	import { who } from '$lib/ui/who.svelte';
	import { useSession } from './session.svelte';

	let { open = $bindable(), item }: { open: boolean; item: string | undefined } = $props();
	const get = useSession();
	const session = $derived(get());
	const uid = $props.id();
	const it = $derived<Item | undefined>(session.item(item));
	const was = $derived<Part | undefined>(session.partOf(item));
	const twins = $derived(session.job.items.filter((x) => x.part === it?.part).length);
	const placed = $derived(session.job.found.placements.some((p) => p.item === item));
	let name = $derived(was?.name ?? '');
	let number = $derived(was?.number ?? '');
	let serial = $derived(it?.serial ?? '');
	let holds = $derived<string>(it?.holds ?? '');
	let isNew = $derived(it?.new ?? false);
	let alone = $state(false);
	let shop = $state(false);
	let part = $state.raw<Part | null>(null);

	async function keep(e: SubmitEvent) {
		e.preventDefault();
		if (!item || !part) return;
		const change: Change = {
			do: 'correct',
			item,
			serial: serial.trim(),
			new: isNew,
			...(holds && { holds: holds as NonNullable<Item['holds']> }),
			part: { ...part, name: name.trim(), number: number.trim() || undefined },
			alone
		};
		const id = item;
		if (!(await session.change(change))) return;
		open = false;
		if (!shop) return;
		shop = false;
		try {
			toasts.add('done', (await api.keepPart(session.job.id, id, who.name)).says);
		} catch (err) {
			refused(err);
		}
	}
</script>

<Dialog bind:open title="Correct {was?.name ?? 'a piece'}" size="md">
	{#if it && was}
		<form class="grid gap-4" onsubmit={keep} aria-label="Correct the piece">
			<div class="grid gap-3 sm:grid-cols-2">
				<div class="grid gap-1">
					<Label for="{uid}name">What it is called</Label>
					<Input id="{uid}name" bind:value={name} required maxlength={120} data-autofocus />
				</div>
				<div class="grid gap-1">
					<Label for="{uid}number">Part number</Label>
					<Input id="{uid}number" bind:value={number} maxlength={80} />
				</div>
				<div class="grid gap-1">
					<Label for="{uid}serial">Serial number</Label>
					<Input id="{uid}serial" bind:value={serial} maxlength={80} />
					<ScanCode about={was.name} onread={(text) => (serial = text)} />
				</div>
				{#if was.drive && was.drive.media !== 'optical'}
					<div class="grid gap-1">
						<Label for="{uid}holds">What it holds</Label>
						<Select
							id="{uid}holds"
							bind:value={holds}
							placeholder=""
							items={[
								{ value: '', name: 'not known' },
								{ value: 'blank', name: 'nothing: it is blank' },
								{ value: 'data', name: 'data that must stay' },
								{ value: 'system', name: 'a system' }
							]}
						/>
					</div>
				{/if}
			</div>
			{#if !placed}
				<Checkbox bind:checked={isNew}>It is new</Checkbox>
			{/if}
			{#if twins > 1}
				<Checkbox bind:checked={alone}>Only this one of the {twins} is other than written</Checkbox>
			{/if}
			{#key item}<PartForm start={was} bind:part />{/key}
			<Checkbox bind:checked={shop}>Save what its label says for the shop too</Checkbox>
			<div class="flex gap-3">
				<Button type="submit" disabled={!part} aria-busy={session.busy}>Save</Button>
				<Button color="alternative" onclick={() => (open = false)}>Cancel</Button>
			</div>
		</form>
	{/if}
</Dialog>
