<script lang="ts">
	// A new sheet starts from a generic layout, as a copy of one in the shop, or from what the
	// machine tells about itself.
	import { goto } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { Button, Input, Label, Radio, Select } from 'flowbite-svelte';
	import { api } from '$lib/api/client';
	import { refusal } from '$lib/api/refused';
	import type { Drafted, Sheet, SheetName } from '$lib/api/types.gen';
	import Thumb from '$lib/chart/Thumb.svelte';
	import Dialog from '$lib/ui/Dialog.svelte';
	import FileButton from '$lib/ui/FileButton.svelte';
	import { keepRead, readMachine } from './read';

	let { open = $bindable(), sheets }: { open: boolean; sheets: readonly SheetName[] } = $props();
	const uid = $props.id();
	let layouts = $state.raw<readonly Sheet[] | null>(null);
	let fault = $state('');
	let name = $state('');
	let from = $state('layout=desktop');

	$effect(() => {
		if (open && layouts === null) void load();
	});
	async function load() {
		fault = '';
		try {
			layouts = await api.layouts(fetch);
		} catch (e) {
			fault = refusal(e).says;
		}
	}
	let told = $state.raw<Drafted>();
	async function read(file: File) {
		fault = '';
		try {
			told = await readMachine(file);
			keepRead(told.sheet);
			from = 'read=1';
			name ||= told.sheet.name;
		} catch (e) {
			fault = refusal(e).says;
		}
	}
	async function start(e: SubmitEvent) {
		e.preventDefault();
		open = false;
		// eslint-disable-next-line svelte/no-navigation-without-resolve -- resolved, with a query
		await goto(`${resolve('/sheets/edit')}?${from}&name=${encodeURIComponent(name)}`);
	}
</script>

{#snippet starts(sheet: Sheet, value: string)}
	<Radio
		name="{uid}from"
		{value}
		bind:group={from}
		classes={{
			label: [
				'flex-col items-start gap-1 rounded border p-2 has-focus-visible:outline-2',
				from === value ? 'border-2 border-ink bg-water-1' : 'border-line hover:bg-water-1'
			].join(' ')
		}}
	>
		<span class="order-first"><Thumb {sheet} /></span>
		{sheet.name}
	</Radio>
{/snippet}

<Dialog bind:open title="New sheet" size="lg">
	<form class="grid gap-3 text-base" onsubmit={start} aria-label="New sheet">
		<div class="grid gap-1">
			<Label for="{uid}name">Name of the machine</Label>
			<Input id="{uid}name" bind:value={name} required maxlength={120} data-autofocus />
		</div>
		{#if fault}
			<p role="alert" class="text-over">{fault}</p>
			<Button onclick={load}>Try again</Button>
		{:else if layouts === null}
			<p role="status">Reading the layouts…</p>
		{:else}
			<fieldset class="grid gap-2">
				<legend class="text-soft">From a generic layout: usual places, nothing claimed</legend>
				<div class="grid grid-cols-2 gap-2 sm:grid-cols-4">
					{#each layouts as l (l.id)}{@render starts(l, 'layout=' + l.id)}{/each}
				</div>
			</fieldset>
			{#if sheets.length > 0}
				<div class="grid gap-1">
					<Label for="{uid}copy">Or as a copy of a sheet in the shop</Label>
					<Select
						id="{uid}copy"
						value={from.startsWith('copy=') ? from : ''}
						placeholder="Choose a sheet"
						items={sheets.map((s) => ({ value: 'copy=' + s.id, name: `${s.name} (${s.class})` }))}
						onchange={(e) => (from = e.currentTarget.value)}
					/>
				</div>
			{/if}
			<div class="grid gap-2 border-t border-line pt-2" data-testid="read-machine">
				<div class="flex flex-wrap items-center gap-3">
					<FileButton label="What the machine tells about itself" accept=".json,.txt" ontake={read}
						>From a file of the machine itself</FileButton
					>
					<span class="text-soft">as deepbay probe writes it</span>
				</div>
				{#if told}
					<p>
						{told.sheet.sockets.length} sockets of {told.sheet.name} were read. In it lies, to be written
						into its job:
					</p>
					<pre class="overflow-x-auto bg-water-1 p-2 select-all">{told.lines.join('\n')}</pre>
					<details>
						<summary class="min-h-11 cursor-pointer py-2.5"
							>What a probe cannot see: {told.asks.length}</summary
						>
						<ul class="list-disc pl-5">
							{#each told.asks as a, i (i)}<li>{a}</li>{/each}
						</ul>
					</details>
				{/if}
			</div>
			<Button type="submit">Start writing</Button>
		{/if}
	</form>
</Dialog>
