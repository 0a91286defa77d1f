<script lang="ts">
	import { Button, Input, Label, Select } from 'flowbite-svelte';
	import { KINDS } from '$lib/part/kinds';
	import BringIn from '$lib/shelf/BringIn.svelte';
	import Parts from '$lib/shelf/Parts.svelte';
	import QuickAdd from '$lib/shelf/QuickAdd.svelte';
	import { shelfAt, type Asked } from '$lib/shelf/address';
	import { Shelf } from '$lib/shelf/shelf.svelte';
	import Quiet from '$lib/ui/Quiet.svelte';
	import { asking, Search } from '$lib/ui/search.svelte';
	import { shortcut } from '$lib/ui/commands.svelte';
	import type { PageProps } from './$types';

	let { data }: PageProps = $props();
	const asked = $derived(data.asked);
	const shelf = $derived(new Shelf(data.list, asked));
	const list = $derived(shelf.list);
	const all = $derived(list.kinds.reduce((n, k) => n + k.count, 0));
	const kinds = $derived([
		{ kind: '', name: 'All', count: all },
		...list.kinds.map((k) => ({
			...k,
			name: KINDS.find((x) => x.value === k.kind)?.short ?? k.kind
		}))
	]);
	const search = new Search(
		() => asked.q,
		(q) => shelfAt({ ...asked, q })
	);
	const look = (next: Partial<Asked>) => asking(shelfAt({ ...asked, ...next }));
	let adding = $state(false);
</script>

<svelte:head><title>Shelf · Deep Bay</title></svelte:head>

<div class="flex flex-wrap items-end gap-3 pt-4 pb-3">
	<div class="grow">
		<h1>Shelf</h1>
		<p class="text-soft" role="status">
			{asked.q
				? `${list.count} kinds of part carry “${asked.q}”`
				: `${list.count} kinds of part`}{list.next ? `; ${list.parts.length} are shown` : ''}
		</p>
	</div>
	<div class="w-full sm:w-64">
		<Label for="find">Find on the shelf</Label>
		<Input
			id="find"
			type="search"
			bind:value={search.q}
			placeholder="name, number, serial, words"
			{@attach shortcut('search')}
		/>
	</div>
	<div class="w-full sm:w-56">
		<Label for="for">What suits the job</Label>
		<Select
			id="for"
			value={asked.job}
			placeholder=""
			items={[
				{ value: '', name: 'no job: the whole shelf' },
				...data.jobs.map((j) => ({ value: j.id, name: j.title }))
			]}
			onchange={(e) => look({ job: e.currentTarget.value })}
		/>
	</div>
	<Button color="alternative" href="/api/shelf/csv" data-sveltekit-reload download
		>Save as a list</Button
	>
	<BringIn {shelf} />
</div>

{#if !asked.job}
	<!-- On a telephone the list comes first, and this at a press. -->
	<Quiet class="sm:hidden" aria-expanded={adding} onclick={() => (adding = !adding)}
		>Put parts on the shelf</Quiet
	>
	<div class={[!adding && 'max-sm:hidden']}><QuickAdd {shelf} /></div>
{/if}

<nav aria-label="Kinds of part" class="flex gap-1 overflow-x-auto pt-2 sm:flex-wrap">
	{#each kinds as k (k.kind)}
		{@const here = asked.kind === k.kind}
		<a
			href={/* eslint-disable-line svelte/no-navigation-without-resolve -- it is, with a query */ shelfAt(
				{ ...asked, kind: k.kind }
			)}
			aria-current={here ? 'page' : undefined}
			class={[
				'flex min-h-11 items-center gap-1 border-b-4 px-3 hover:bg-water-1',
				here ? 'border-ink font-semibold' : 'border-transparent'
			]}>{k.name} <span class="text-soft">{k.count}</span></a
		>
	{/each}
</nav>

{#if list.parts.length === 0}
	<p class="py-8">
		{asked.q
			? 'Nothing on the shelf carries that. Blanks, dashes and capitals do not matter.'
			: 'The shelf is empty. Type the first part above, or bring in a list.'}
	</p>
{:else}
	<Parts {shelf} />
{/if}
