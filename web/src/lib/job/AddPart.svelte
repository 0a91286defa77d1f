<script lang="ts">
	import { Button, Checkbox, Input, Label, Select } from 'flowbite-svelte';
	import { api, ApiError } from '$lib/api/client';
	import type { Part } from '$lib/api/types.gen';
	import Dialog from '$lib/ui/Dialog.svelte';
	import { useSession, type State } from './session.svelte';

	let { open = $bindable(), which }: { open: boolean; which: State } = $props();
	const get = useSession();
	const session = $derived(get());
	const uid = $props.id();
	let shelf = $state.raw<readonly Part[] | null>(null);
	let fault = $state('');
	let part = $state('');
	let serial = $state('');
	let isNew = $derived(which === 'planned');

	$effect(() => {
		if (open && shelf === null) void load();
	});
	async function load() {
		fault = '';
		try {
			shelf = await api.parts(fetch);
		} catch (e) {
			if (!(e instanceof ApiError)) throw e;
			fault = e.message;
		}
	}
	async function add(e: SubmitEvent) {
		e.preventDefault();
		const chosen = shelf?.find((p) => p.id === part);
		if (!chosen) return;
		if (await session.change({ do: 'add', part: chosen, serial, new: isNew })) {
			serial = '';
			open = false;
		}
	}
</script>

<Dialog bind:open title="Add a part">
	{#if fault}
		<p role="alert" class="text-over">{fault}</p>
		<Button onclick={load}>Try again</Button>
	{:else if shelf === null}
		<p role="status">Reading the shelf…</p>
	{:else if shelf.length === 0}
		<p>The shelf is empty. Bring in a part file on the bench.</p>
	{:else}
		<form class="grid gap-4" onsubmit={add} aria-label="Add a part">
			<div class="grid gap-1">
				<Label for="{uid}part">Part</Label>
				<Select
					id="{uid}part"
					bind:value={part}
					required
					placeholder="Choose from the shelf"
					items={shelf.map((p) => ({ value: p.id, name: `${p.name} · ${p.number ?? ''}` }))}
					data-autofocus
				/>
			</div>
			<div class="grid gap-1">
				<Label for="{uid}serial">Serial number, as printed</Label>
				<Input id="{uid}serial" bind:value={serial} maxlength={80} autocomplete="off" />
			</div>
			<Checkbox bind:checked={isNew}
				>It came to be fitted (else it was found in the machine)</Checkbox
			>
			<Button type="submit" aria-busy={session.busy}>Add it</Button>
		</form>
	{/if}
</Dialog>
