<script lang="ts">
	// A list of parts is read, shown, and taken or not.
	import { Button } from 'flowbite-svelte';
	import { api } from '$lib/api/client';
	import { refused } from '$lib/api/refused';
	import type { CSVReport } from '$lib/api/types.gen';
	import Dialog from '$lib/ui/Dialog.svelte';
	import FileButton from '$lib/ui/FileButton.svelte';
	import { toasts } from '$lib/ui/toasts.svelte';
	import { who } from '$lib/ui/who.svelte';
	import { type Shelf } from './shelf.svelte';

	let { shelf }: { shelf: Shelf } = $props();
	let report = $state.raw<{ file: File; said: CSVReport } | null>(null);
	let open = $derived(report !== null);

	async function read(file: File) {
		try {
			report = { file, said: await api.shelfList(file, who.name, false) };
		} catch (e) {
			refused(e);
		}
	}

	async function take() {
		if (!report) return;
		try {
			const done = await api.shelfList(report.file, who.name, true);
			toasts.add('done', `${done.taken} rows taken`);
			await shelf.again();
		} catch (e) {
			refused(e);
		}
		report = null;
	}
</script>

<FileButton label="List of parts (CSV)" accept=".csv,text/csv" ontake={read}
	>Bring in a list</FileButton
>

<Dialog {open} permanent title="A list of parts" size="md">
	{#if report}
		<p>{report.file.name}: {report.said.says}.</p>
		{#if report.said.problems.length > 0}
			<ul class="my-2 border-l-4 border-over pl-3">
				{#each report.said.problems as p, i (i)}
					<li><strong>line {p.line}{p.column ? `, ${p.column}` : ''}:</strong> {p.says}</li>
				{/each}
			</ul>
		{/if}
		<div class="mt-3 flex flex-wrap gap-3">
			<Button disabled={report.said.good === 0} onclick={take}
				>Take the {report.said.good} good rows</Button
			>
			<Button color="alternative" onclick={() => (report = null)}>Take none</Button>
		</div>
	{/if}
</Dialog>
