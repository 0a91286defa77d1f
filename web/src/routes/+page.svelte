<script lang="ts">
	import { invalidate } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { navigating } from '$app/state';
	import { Button, Input, Label } from 'flowbite-svelte';
	import { api, ApiError } from '$lib/api/client';
	import { listen } from '$lib/api/live';
	import type { JobCard } from '$lib/api/types.gen';
	import Gone from '$lib/bench/Gone.svelte';
	import { by, WAYS } from '$lib/bench/by.svelte';
	import Card from '$lib/bench/Card.svelte';
	import Notices from '$lib/bench/Notices.svelte';
	import { TABS } from '$lib/job/screens';
	import Later from '$lib/ui/Later.svelte';
	import { bringIn } from '$lib/ui/bring';
	import FileButton from '$lib/ui/FileButton.svelte';
	import { searching } from '$lib/ui/search';
	import { shortcut } from '$lib/ui/commands.svelte';
	import { toasts } from '$lib/ui/toasts.svelte';
	import { who } from '$lib/ui/who.svelte';
	import type { PageProps } from './$types';

	let { data }: PageProps = $props();
	let making = $state(false);
	let q = $derived(data.q);
	let list = $derived(data.list);
	let asking = $state(false);
	/** The open jobs as they are grouped, then those that are handed over. */
	const groups = $derived.by(() => {
		const open = list.jobs.filter((c) => c.status.stage !== 'closed');
		const closed = list.jobs.filter((c) => c.status.stage === 'closed');
		const of = (c: JobCard) =>
			by.how === 'stage' ? c.status.stage : by.how === 'place' ? (c.stands ?? 'no place') : '';
		const names =
			by.how === 'stage'
				? TABS.filter((t) => open.some((c) => of(c) === t))
				: [...new Set(open.map(of))].sort();
		return [
			...names.map((name) => ({
				name,
				label: name ? `Open jobs: ${name}` : 'Open jobs',
				jobs: open.filter((c) => of(c) === name)
			})),
			...(closed.length > 0 ? [{ name: 'Handed over', label: 'Closed jobs', jobs: closed }] : [])
		];
	});

	const search = searching((q) => resolve('/') + (q ? '?q=' + encodeURIComponent(q) : ''));

	// What others do is seen here as it happens; several things at once are one look.
	$effect(() => {
		let soon: ReturnType<typeof setTimeout> | undefined;
		const stop = listen(() => {
			clearTimeout(soon);
			// Not while somebody goes elsewhere: that would hold them here.
			soon = setTimeout(() => navigating.to ?? void invalidate('app:bench'), 150);
		});
		return () => {
			stop();
			clearTimeout(soon);
		};
	});

	/** Puts the next page under what is there; a job that changed meanwhile stays where it was. */
	async function more() {
		if (!list.next || asking) return;
		asking = true;
		try {
			const page = await api.jobs(fetch, data.q, list.next);
			const there = list.jobs.map((c) => c.id);
			list = { ...page, jobs: [...list.jobs, ...page.jobs.filter((c) => !there.includes(c.id))] };
		} catch (e) {
			if (!(e instanceof ApiError)) throw e;
			toasts.add('error', e.message);
		} finally {
			asking = false;
		}
	}

	/** A job that is damaged, or cannot be judged, comes back as it last was in order. */
	async function bringBack(c: JobCard) {
		try {
			const now = await api.back(c.id, who.name, crypto.randomUUID());
			toasts.add('done', `${now.view.job.title} is back: ${now.journal.at(-1)?.says}`);
			await invalidate('app:bench');
		} catch (e) {
			if (!(e instanceof ApiError)) throw e;
			toasts.add('error', e.message);
		}
	}

	async function take(file: File) {
		if (await bringIn(file)) await invalidate('app:bench');
	}
</script>

<svelte:head><title>Bench · Deep Bay</title></svelte:head>

<div class="flex flex-wrap items-end gap-4 py-3">
	<div class="grow">
		<h1>On the bench</h1>
		<p class="text-soft" role="status">
			{list.says}{list.next ? `; ${list.jobs.length} are shown` : ''}
		</p>
		{#if data.backup && !data.backup.old}<p class="text-soft">{data.backup.says}</p>{/if}
	</div>
	<div
		class="flex rounded-md border border-line"
		role="group"
		aria-label="How the jobs are grouped"
	>
		{#each WAYS as [how, label] (how)}
			<button
				class={['min-h-11 px-3', by.how === how ? 'bg-land font-semibold' : 'hover:bg-water-1']}
				aria-pressed={by.how === how}
				onclick={() => by.set(how)}>{label}</button
			>
		{/each}
	</div>
	<div class="w-full sm:w-84">
		<Label for="q">Find by anything printed on it</Label>
		<Input
			id="q"
			type="search"
			bind:value={q}
			oninput={() => search(q)}
			placeholder="serial, part number, tag, name"
			{@attach shortcut('search')}
		/>
	</div>
	<Button onclick={() => (making = true)} {@attach shortcut('new')}>New job</Button>
	<FileButton label="Job, sheet or part file" accept=".json,application/json" ontake={take}
		>Bring in a file</FileButton
	>
</div>

<Notices {data} />

{#if list.jobs.length === 0}
	<section class="grid max-w-xl gap-3 border-t border-line py-10">
		<h2>{data.q ? 'Nothing carries that' : 'The bench is clear'}</h2>
		<p>
			{data.q
				? 'Blanks, dashes and capitals do not matter. Try fewer letters of the serial or part number.'
				: 'Start a job from a machine sheet and a wish, or bring in a job file.'}
		</p>
	</section>
{:else}
	{#each groups as g (g.name)}
		{#if g.name}<h2 class="mt-4 mb-2 first-letter:uppercase">{g.name}</h2>{/if}
		<ul class="grid gap-2 lg:grid-cols-2 2xl:grid-cols-3" aria-label={g.label}>
			{#each g.jobs as c (c.id)}<Card card={c} today={list.today} onback={bringBack} />{/each}
		</ul>
	{/each}
	{#if list.next}
		<div class="flex flex-wrap items-center gap-4 py-5">
			<Button color="alternative" disabled={asking} onclick={more}
				>{asking ? 'Asking…' : 'Show more'}</Button
			>
			<p class="text-soft">
				{list.jobs.length} of {list.open + list.closed} are shown. To find one, type what is printed on
				it above.
			</p>
		</div>
	{/if}
{/if}

{#if !data.q}<Gone />{/if}

<Later
	bind:open={making}
	load={() => import('$lib/bench/NewJob.svelte')}
	also={{ sheets: data.sheets }}
/>
