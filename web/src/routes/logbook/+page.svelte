<script lang="ts">
	import { Button, Input, Label, Select } from 'flowbite-svelte';
	import Lines from '$lib/logbook/Lines.svelte';
	import Rooms from '$lib/logbook/Rooms.svelte';
	import { lifeAt, logbook, logbookAt, query, type Asked } from '$lib/logbook/api';
	import { refusal } from '$lib/api/refused';
	import { asking, Search } from '$lib/ui/search.svelte';
	import { shortcut } from '$lib/ui/commands.svelte';
	import { toasts } from '$lib/ui/toasts.svelte';
	import { resolve } from '$app/paths';
	import type { PageProps } from './$types';

	let { data }: PageProps = $props();
	const asked = $derived(data.asked);
	let page = $derived(data.first);
	let lines = $derived(data.first.lines);
	let more = $state(false);
	const search = new Search(
		() => asked.q,
		(q) => logbookAt({ ...asked, q })
	);
	const DAYS = [
		['from', 'From'],
		['to', 'To']
	] as const;
	const look = (next: Partial<Asked>) => asking(logbookAt({ ...asked, ...next }));
	const narrow = $derived(Object.values(asked).some(Boolean));
	const hands = $derived([...new Set(lines.map((l) => l.by))].sort());
	const serial = $derived(page.parts.find((p) => p.serial)?.serial ?? '');

	async function next() {
		more = true;
		try {
			const got = await logbook(fetch, asked, page.next);
			lines = [...lines, ...got.lines];
			page = { ...page, next: got.next };
		} catch (e) {
			toasts.add('error', refusal(e).message);
		} finally {
			more = false;
		}
	}
	const file = (as: string) => '/api/logbook/file?' + query(asked).toString() + '&as=' + as;
</script>

<svelte:head><title>Logbook · Deep Bay</title></svelte:head>

<div class="flex flex-wrap items-end gap-x-6 gap-y-2 pt-4">
	<h1>Logbook</h1>
	<Rooms />
	<span class="grow"></span>
	<Button color="alternative" href={file('csv')} data-sveltekit-reload download
		>Save as a list</Button
	>
	<Button color="alternative" href={file('json')} data-sveltekit-reload download
		>Save as JSON</Button
	>
</div>

<form
	class="grid gap-3 py-3 sm:grid-cols-2 lg:grid-cols-[2fr_1fr_1fr_1.4fr_1fr_1fr]"
	onsubmit={(e) => e.preventDefault()}
	aria-label="What is looked for"
>
	<div>
		<Label for="find">Anything printed or written</Label>
		<Input
			id="find"
			type="search"
			bind:value={search.q}
			placeholder="serial, tag, owner, words"
			{@attach shortcut('search')}
		/>
	</div>
	<div>
		<Label for="kind">Of</Label>
		<Select
			id="kind"
			value={asked.kind}
			placeholder=""
			items={[
				{ value: '', name: 'everything' },
				{ value: 'job', name: 'jobs' },
				{ value: 'sheet', name: 'sheets' },
				{ value: 'part', name: 'the shelf' }
			]}
			onchange={(e) => look({ kind: e.currentTarget.value, thing: '' })}
		/>
	</div>
	<div>
		<Label for="who">By</Label>
		<Input
			id="who"
			value={asked.who}
			list="hands"
			placeholder="anybody"
			onchange={(e) => look({ who: e.currentTarget.value })}
		/>
		<datalist id="hands"
			>{#each hands as h (h)}<option value={h}></option>{/each}</datalist
		>
	</div>
	<div>
		<Label for="model">Model</Label>
		<Select
			id="model"
			value={asked.model}
			placeholder=""
			items={[
				{ value: '', name: 'any' },
				...data.sheets.map((s) => ({ value: s.id, name: s.name }))
			]}
			onchange={(e) => look({ model: e.currentTarget.value })}
		/>
	</div>
	{#each DAYS as [name, label] (name)}
		<div>
			<Label for={name}>{label}</Label>
			<Input
				id={name}
				type="date"
				value={asked[name]}
				onchange={(e) => look({ [name]: e.currentTarget.value })}
			/>
		</div>
	{/each}
</form>

<p role="status" class="text-soft">
	{page.says}{page.left ? `; ${page.left} older lines are still being read in` : ''}
	{#if narrow}
		<a href={resolve('/logbook')} class="underline decoration-dotted underline-offset-4"
			>everything again</a
		>{/if}
</p>

{#if page.jobs.length + page.parts.length > 0}
	<section aria-label="Machines and parts" class="my-3 border-y border-line bg-raised px-3 py-2">
		<h2 class="sr-only">Machines and parts</h2>
		<ul class="flex flex-wrap gap-x-6 gap-y-1">
			{#each page.jobs as j (j.id)}
				<li>
					<a
						href={/* eslint-disable-line svelte/no-navigation-without-resolve -- it is, with a query */ lifeAt(
							{ job: j.id }
						)}
						class="inline-flex min-h-11 items-center gap-2 underline underline-offset-4"
						><span aria-hidden="true" class="size-3 border border-coast bg-land"
						></span>{j.called}</a
					>
				</li>
			{/each}
			{#each page.parts as p (p.id)}
				<li>
					<a
						href={/* eslint-disable-line svelte/no-navigation-without-resolve -- it is, with a query */ p.serial
							? lifeAt({ serial: p.serial })
							: resolve('/shelf') + '?q=' + encodeURIComponent(p.called)}
						class="inline-flex min-h-11 items-center gap-2 underline underline-offset-4"
						><span aria-hidden="true" class="size-3 rounded-full border border-water-5 bg-water-2"
						></span>{p.called}, on the shelf</a
					>
				</li>
			{/each}
			{#if /\d/.test(asked.q) && !serial}
				<li>
					<a
						href={/* eslint-disable-line svelte/no-navigation-without-resolve -- it is, with a query */ lifeAt(
							{ serial: asked.q }
						)}
						class="inline-flex min-h-11 items-center text-soft underline decoration-dotted underline-offset-4"
						>the life of a part with serial number “{asked.q}”</a
					>
				</li>
			{/if}
		</ul>
	</section>
{/if}

{#if lines.length > 0}
	<Lines {lines} />
{:else}
	<p class="py-8">
		{narrow
			? 'No line of any journal is like that. Capitals, dashes and dots do not matter; beginnings of words are enough.'
			: 'Nothing has happened in this shop yet.'}
	</p>
{/if}
{#if page.next}
	<p class="py-4">
		<Button color="alternative" disabled={more} onclick={next}>Earlier lines</Button>
	</p>
{/if}
