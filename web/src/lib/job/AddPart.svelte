<script lang="ts">
	import { Button, Checkbox, Input, Label, Select } from 'flowbite-svelte';
	import { api } from '$lib/api/client';
	import { refusal } from '$lib/api/refused';
	import type { Part, ShortForm } from '$lib/api/types.gen';
	import { KINDS } from '$lib/part/kinds';
	import PartForm from '$lib/part/PartForm.svelte';
	import Dialog from '$lib/ui/Dialog.svelte';
	import ScanCode from '$lib/ui/ScanCode.svelte';
	import { useSession, type State } from './session.svelte';
	import WrittenDown from './WrittenDown.svelte';

	let { open = $bindable(), which }: { open: boolean; which: State } = $props();
	const get = useSession();
	const session = $derived(get());
	const uid = $props.id();
	let shelf = $state.raw<readonly Part[] | null>(null);
	let fault = $state('');
	let words = $state('');
	let part = $state('');
	let serial = $state('');
	/** Filled in as a form of this kind, instead of by words. */
	let kind = $state<ShortForm['kind'] | ''>('');
	let filled = $state.raw<Part | null>(null);
	let isNew = $derived(which === 'planned');
	/** Sockets in which nothing was found, for what lies in the machine. */
	const free = $derived(
		isNew
			? []
			: [...session.job.sheet.sockets, ...session.view.found.carried]
					.map((k) => k.id)
					.filter((id) => !session.job.found.placements.some((p) => p.socket === id))
	);

	$effect(() => {
		if (open && shelf === null) void load();
	});
	async function load() {
		fault = '';
		try {
			shelf = await api.parts(fetch);
		} catch (e) {
			fault = refusal(e).says;
		}
	}
	async function add(e: SubmitEvent) {
		e.preventDefault();
		const chosen = kind ? filled : shelf?.find((p) => p.id === part);
		const what = !kind && words.trim() ? { text: words } : chosen && { part: chosen, serial };
		if (what && (await session.change({ do: 'add', ...what, new: isNew }))) {
			serial = words = kind = '';
			open = false;
		}
	}
</script>

<Dialog bind:open title="Add parts" size="md">
	<form class="grid gap-4" onsubmit={add} aria-label="Add parts">
		<Checkbox bind:checked={isNew}>They are new (else they were found in the machine)</Checkbox>
		{#if !kind}
			<WrittenDown
				bind:text={words}
				of="/jobs/{session.job.id}"
				label={isNew
					? 'Type or paste what is printed on them, a line for each kind'
					: 'Where it lies, a colon, and what is printed on it, a line for each'}
				places={free}
				required={!part}
				autofocus
			/>
		{/if}
		<div class="grid gap-1">
			<Label for="{uid}kind">Or fill in a form</Label>
			<Select
				id="{uid}kind"
				bind:value={kind}
				placeholder=""
				items={[{ value: '', name: 'no: by words, or from the shelf' }, ...KINDS]}
			/>
		</div>
		{#if kind}
			{#key kind}<PartForm {kind} bind:part={filled} />{/key}
		{/if}
		{#if fault}
			<p role="alert" class="text-over">{fault}</p>
			<Button onclick={load}>Try again</Button>
		{:else if shelf === null}
			<p role="status">Reading the shelf…</p>
		{/if}
		<div class="grid gap-4 sm:grid-cols-2">
			{#if shelf?.length && !kind}
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
			{#if kind || shelf?.length}
				<div class="grid gap-1">
					<Label for="{uid}serial">Its serial number, as printed</Label>
					<Input
						id="{uid}serial"
						bind:value={serial}
						maxlength={80}
						autocomplete="off"
						disabled={!kind && words.trim() !== ''}
					/>
					<ScanCode about="the part to add" onread={(text) => (serial = text)} />
				</div>
			{/if}
		</div>
		<Button type="submit" disabled={kind !== '' && !filled} aria-busy={session.busy}>Add it</Button>
	</form>
</Dialog>
