<script lang="ts">
	import { resolve } from '$app/paths';
	import { Button, Input, Label, Select } from 'flowbite-svelte';
	import { api, ApiError } from '$lib/api/client';
	import type { CSVReport, ShelfRow } from '$lib/api/types.gen';
	import { CONDITIONS, type Condition } from '$lib/shelf/conditions';
	import EditStock from '$lib/shelf/EditStock.svelte';
	import Meaning from '$lib/shelf/Meaning.svelte';
	import Dialog from '$lib/ui/Dialog.svelte';
	import FileButton from '$lib/ui/FileButton.svelte';
	import { searching } from '$lib/ui/search';
	import { shortcut } from '$lib/ui/commands.svelte';
	import { toasts } from '$lib/ui/toasts.svelte';
	import { who } from '$lib/ui/who.svelte';
	import type { PageProps } from './$types';

	let { data }: PageProps = $props();
	let list = $derived(data.list);
	let q = $derived(data.q);
	let asking = $state(false);
	let words = $state('');
	let says = $state('');
	let price = $state('');
	let condition = $state<Condition | ''>('');
	let serials = $state('');
	let editing = $state.raw<ShelfRow | null>(null);
	let report = $state.raw<{ file: File; said: CSVReport } | null>(null);
	let reportOpen = $derived(report !== null);

	const said = (e: unknown) => {
		if (!(e instanceof ApiError)) throw e;
		toasts.add('error', e.problem.errors?.map((x) => x.says).join('; ') ?? e.message);
	};

	/** Shows a part as it is now; one that is new to the list stands first. */
	function put(row: ShelfRow) {
		const there = list.parts.some((r) => r.stock.part.id === row.stock.part.id);
		list = {
			...list,
			count: list.count + (there ? 0 : 1),
			parts: there
				? list.parts.map((r) => (r.stock.part.id === row.stock.part.id ? row : r))
				: [row, ...list.parts]
		};
	}

	async function more() {
		if (!list.next || asking) return;
		asking = true;
		try {
			const page = await api.shelf(fetch, data.q, list.next);
			const there = new Set(list.parts.map((r) => r.stock.part.id));
			const parts = page.parts.filter((r) => !there.has(r.stock.part.id));
			list = { ...page, parts: [...list.parts, ...parts] };
		} catch (e) {
			said(e);
		} finally {
			asking = false;
		}
	}

	const search = searching(resolve('/shelf'));

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
			put(await api.quickAdd({ ...body, key: adding.key }));
			adding = { of: '', key: '' };
			toasts.add('done', `On the shelf: ${says || words}`);
			words = serials = price = '';
		} catch (err) {
			said(err);
		}
	}

	async function read(file: File) {
		try {
			report = { file, said: await api.shelfList(file, who.name, false) };
		} catch (e) {
			said(e);
		}
	}

	async function take() {
		if (!report) return;
		try {
			const done = await api.shelfList(report.file, who.name, true);
			toasts.add('done', `${done.taken} rows taken`);
			list = await api.shelf(fetch, data.q);
		} catch (e) {
			said(e);
		}
		report = null;
	}
</script>

<svelte:head><title>Shelf · Deep Bay</title></svelte:head>

<div class="flex flex-wrap items-end gap-3 pt-5 pb-3">
	<div class="grow">
		<h1>Shelf</h1>
		<p class="text-soft" role="status">
			{data.q
				? `${list.count} kinds of part carry “${data.q}”`
				: `${list.count} kinds of part`}{list.next ? `; ${list.parts.length} are shown` : ''}
		</p>
	</div>
	<div class="w-full sm:w-72">
		<Label for="find">Find on the shelf</Label>
		<Input
			id="find"
			type="search"
			bind:value={q}
			oninput={() => search(q)}
			placeholder="name, number, serial, words"
			{@attach shortcut('search')}
		/>
	</div>
	<Button color="alternative" href="/api/shelf/csv" data-sveltekit-reload download
		>Save as a list</Button
	>
	<FileButton label="List of parts (CSV)" accept=".csv,text/csv" ontake={read}
		>Bring in a list</FileButton
	>
</div>

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

{#if list.parts.length === 0}
	<p class="py-8">
		{data.q
			? 'Nothing on the shelf carries that. Blanks, dashes and capitals do not matter.'
			: 'The shelf is empty. Type the first part above, or bring in a list.'}
	</p>
{:else}
	<div class="relative overflow-x-auto" role="region" aria-label="Parts on the shelf" tabindex="-1">
		<table class="mt-3 w-full border-collapse text-left">
			<thead>
				<tr class="border-b-2 border-ink">
					<th class="py-2 pr-3">Part</th>
					<th class="pr-3 text-right">Count</th>
					<th class="pr-3 text-right">Price</th>
					<th class="pr-3">Condition</th>
					<th class="pr-3">Serial numbers</th>
					<th class="pr-3">Used in</th>
					<th><span class="sr-only">Correct</span></th>
				</tr>
			</thead>
			<tbody>
				{#each list.parts as r (r.stock.part.id)}
					<tr class="border-b border-line align-top" data-part={r.stock.part.id}>
						<td class="py-2 pr-3">
							<strong>{r.stock.part.name}</strong>
							<span class="text-soft">{r.stock.part.number}</span><br />{r.what}
							{#if r.stock.part.source}<br /><span class="text-soft"
									>as seen in {r.stock.part.source}</span
								>{/if}
						</td>
						<td class="py-2 pr-3 text-right">{r.stock.count}</td>
						<td class="py-2 pr-3 text-right">{r.price}</td>
						<td class="py-2 pr-3">{r.stock.condition ?? ''}</td>
						<td class="py-2 pr-3">{(r.stock.serials ?? []).join(', ')}</td>
						<td class="py-2 pr-3">
							{#each r.used as j (j.id)}
								<a class="block underline" href={resolve('/jobs/[id]', { id: j.id })}>{j.title}</a>
							{/each}
							{#if r.more}<span class="text-soft">and earlier jobs</span>{/if}
						</td>
						<td class="py-1 text-right">
							<Button
								color="alternative"
								aria-label="Correct {r.stock.part.name}"
								onclick={() => (editing = r)}>Correct</Button
							>
						</td>
					</tr>
				{/each}
			</tbody>
		</table>
	</div>
	{#if list.next}
		<Button class="my-4" color="alternative" disabled={asking} onclick={more}
			>{asking ? 'Asking…' : 'Show more'}</Button
		>
	{/if}
{/if}

<EditStock
	row={editing}
	onkept={(r) => {
		put(r);
		editing = null;
	}}
	onstale={(r) => {
		put(r);
		editing = r;
	}}
	onleave={() => (editing = null)}
/>

<Dialog open={reportOpen} permanent title="A list of parts" size="md">
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
