<script lang="ts">
	import { invalidate } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { navigating } from '$app/state';
	import { Button, Input, Label } from 'flowbite-svelte';
	import { api, ApiError } from '$lib/api/client';
	import { listen } from '$lib/api/live';
	import type { Damage, JobCard } from '$lib/api/types.gen';
	import Gone from '$lib/bench/Gone.svelte';
	import NewJob from '$lib/bench/NewJob.svelte';
	import StageTrack from '$lib/bench/StageTrack.svelte';
	import { SCREENS } from '$lib/job/screens';
	import { bringIn } from '$lib/ui/bring';
	import FileButton from '$lib/ui/FileButton.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { searching } from '$lib/ui/search';
	import { shortcut } from '$lib/ui/commands.svelte';
	import { when } from '$lib/ui/text';
	import { toasts } from '$lib/ui/toasts.svelte';
	import { who } from '$lib/ui/who.svelte';
	import type { PageProps } from './$types';

	let { data }: PageProps = $props();
	let making = $state(false);
	let q = $derived(data.q);
	let list = $derived(data.list);
	let asking = $state(false);
	const open = $derived(list.jobs.filter((c) => c.status.stage !== 'closed'));
	const closed = $derived(list.jobs.filter((c) => c.status.stage === 'closed'));

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
			const there = new Set(list.jobs.map((c) => c.id));
			list = { ...page, jobs: [...list.jobs, ...page.jobs.filter((c) => !there.has(c.id))] };
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

	/** So does a sheet, or a part of the shelf. */
	async function mend(d: Damage) {
		try {
			await api.mend(d.what, d.id, who.name, crypto.randomUUID());
			toasts.add('done', `The ${d.what} ${d.id} is back as it last was`);
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

{#snippet card(c: JobCard)}
	<li
		class={[
			'grid grid-cols-[minmax(0,1fr)_auto] content-between gap-x-4 gap-y-1 rounded-sm border bg-raised px-3 py-2',
			c.ill || c.status.stops ? 'border-over' : 'border-line'
		]}
	>
		<div class="min-w-0">
			<h2 class="text-xl leading-7 font-semibold">
				<a class="hover:underline" href={resolve(SCREENS[c.status.go].route, { id: c.id })}
					>{c.title}</a
				>
			</h2>
			<p class="truncate text-soft" title={c.wish ? `“${c.wish}”` : undefined}>
				{[c.tag, c.sheet, c.owner].filter(Boolean).join(' · ')}
			</p>
		</div>
		{#if c.ill}
			<Mark grade="stops" />
			<p class="col-span-2">{c.ill}</p>
			<div class="col-span-2 flex flex-wrap gap-3">
				<Button
					color="alternative"
					href="/api/jobs/{encodeURIComponent(c.id)}/raw"
					data-sveltekit-reload
					download>Save what is there</Button
				>
				<Button
					aria-label="Bring back its last good revision: {c.title}"
					onclick={() => bringBack(c)}>Bring back its last good revision</Button
				>
			</div>
		{:else}
			<StageTrack status={c.status} />
			<div class="min-w-0 self-end">
				<p class="flex items-start gap-2 leading-tight">
					{#if c.status.stops}<span class="mt-0.5"><Mark grade="stops" /></span>{/if}
					<span><span class="text-soft">waits for</span> {c.status.waits}</span>
				</p>
				<p class="text-soft">in since {when(c.arrived)}</p>
			</div>
			<Button
				class="max-w-64 self-end whitespace-normal"
				color={c.status.stage === 'closed' ? 'alternative' : 'primary'}
				href={resolve(SCREENS[c.status.go].route, { id: c.id })}
				aria-label="{c.status.next}: {c.title}">{c.status.next}</Button
			>
		{/if}
	</li>
{/snippet}

<div class="flex flex-wrap items-end gap-4 py-3">
	<div class="grow">
		<h1>On the bench</h1>
		<p class="text-soft" role="status">
			{list.says}{list.next ? `; ${list.jobs.length} are shown` : ''}
		</p>
		{#if data.backup && !data.backup.old}<p class="text-soft">{data.backup.says}</p>{/if}
	</div>
	<div class="w-full sm:w-104">
		<Label for="q">Find by anything printed on the machine or its parts</Label>
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

{#if data.backup?.old}
	<p class="mb-4 flex items-start gap-2 border-l-4 border-over bg-overtint p-3" role="alert">
		<span class="mt-0.5"><Mark grade="stops" /></span>
		<span><strong>Backup</strong> · {data.backup.says}. Tell whoever looks after this machine.</span
		>
	</p>
{/if}

{#if data.space?.low}
	<p class="mb-4 flex items-start gap-2 border-l-4 border-over bg-overtint p-3" role="alert">
		<span class="mt-0.5"><Mark grade="stops" /></span>
		<span
			><strong>Room</strong> · {data.space.says}. Soon nothing can be kept: tell whoever looks after
			this machine.</span
		>
	</p>
{/if}

{#each data.damaged as d (d.what + ' ' + d.id + d.says)}
	<div class="mb-4 flex flex-wrap items-start gap-2 border-l-4 border-over bg-overtint p-3">
		<span class="mt-0.5"><Mark grade="stops" /></span>
		<p class="min-w-0 flex-1"><strong>Damaged</strong> · {d.says}</p>
		{#if d.what === 'sheet' || d.what === 'part'}
			<Button
				color="alternative"
				href="/api/damaged/{d.what}/{encodeURIComponent(d.id)}"
				data-sveltekit-reload
				download
				aria-label="Save what is there: {d.what} {d.id}">Save what is there</Button
			>
			<Button
				aria-label="Bring back its last good revision: {d.what} {d.id}"
				onclick={() => mend(d)}>Bring back its last good revision</Button
			>
		{/if}
	</div>
{/each}

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
	{#if open.length > 0}
		<ul class="grid gap-2 lg:grid-cols-2 2xl:grid-cols-3" aria-label="Open jobs">
			{#each open as c (c.id)}{@render card(c)}{/each}
		</ul>
	{/if}
	{#if closed.length > 0}
		<h2 class="mt-8 mb-2">Handed over</h2>
		<ul class="grid gap-2 lg:grid-cols-2 2xl:grid-cols-3" aria-label="Closed jobs">
			{#each closed as c (c.id)}{@render card(c)}{/each}
		</ul>
	{/if}
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

<NewJob bind:open={making} sheets={data.sheets} />
