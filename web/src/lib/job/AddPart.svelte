<script lang="ts">
	import { Button, Checkbox, Input, Label, Select } from 'flowbite-svelte';
	import { api, ApiError } from '$lib/api/client';
	import type { Part } from '$lib/api/types.gen';
	import Meaning from '$lib/shelf/Meaning.svelte';
	import Dialog from '$lib/ui/Dialog.svelte';
	import { useSession, type State } from './session.svelte';

	let { open = $bindable(), which }: { open: boolean; which: State } = $props();
	const get = useSession();
	const session = $derived(get());
	const uid = $props.id();
	let shelf = $state.raw<readonly Part[] | null>(null);
	let fault = $state('');
	let words = $state('');
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
		const what = words.trim() ? { text: words.trim() } : chosen && { part: chosen };
		if (what && (await session.change({ do: 'add', ...what, serial, new: isNew }))) {
			serial = words = '';
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
	{:else}
		<form class="grid gap-4" onsubmit={add} aria-label="Add a part">
			<div class="grid gap-1">
				<Label for="{uid}words">Type or paste what is printed on it</Label>
				<Input
					id="{uid}words"
					bind:value={words}
					required={!part}
					maxlength={300}
					autocomplete="off"
					spellcheck="false"
					placeholder="2x16 DDR4-3200 DIMM, 1TB nvme 2280 gen4 x4"
					data-autofocus
				/>
				<Meaning bind:words />
			</div>
			{#if shelf.length > 0}
				<div class="grid gap-1">
					<Label for="{uid}part">Or choose from the shelf</Label>
					<Select
						id="{uid}part"
						bind:value={part}
						disabled={words.trim() !== ''}
						placeholder="none"
						items={shelf.map((p) => ({ value: p.id, name: `${p.name} · ${p.number ?? ''}` }))}
					/>
				</div>
			{/if}
			<div class="grid gap-1">
				<Label for="{uid}serial"
					>Serial number, as printed; of several pieces, with blanks between</Label
				>
				<Input id="{uid}serial" bind:value={serial} maxlength={80} autocomplete="off" />
			</div>
			<Checkbox bind:checked={isNew}
				>It came to be fitted (else it was found in the machine)</Checkbox
			>
			<Button type="submit" aria-busy={session.busy}>Add it</Button>
		</form>
	{/if}
</Dialog>
