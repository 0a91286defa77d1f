<script lang="ts">
	import { invalidate } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { navigating } from '$app/state';
	import { Button, Input, Label } from 'flowbite-svelte';
	import { listen } from '$lib/api/live';
	import Gone from '$lib/bench/Gone.svelte';
	import { by, WAYS } from '$lib/bench/by.svelte';
	import Jobs from '$lib/bench/Jobs.svelte';
	import Notices from '$lib/bench/Notices.svelte';
	import Later from '$lib/ui/Later.svelte';
	import { bringIn } from '$lib/ui/bring';
	import FileButton from '$lib/ui/FileButton.svelte';
	import { Search } from '$lib/ui/search.svelte';
	import { shortcut } from '$lib/ui/commands.svelte';
	import type { PageProps } from './$types';

	let { data }: PageProps = $props();
	let making = $state(false);
	let list = $derived(data.list);
	const search = new Search(
		() => data.q,
		(q) => resolve('/') + (q ? '?q=' + encodeURIComponent(q) : '')
	);

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
			bind:value={search.q}
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

<Jobs bind:list q={data.q} />

{#if !data.q}<Gone />{/if}

<Later
	bind:open={making}
	load={() => import('$lib/bench/NewJob.svelte')}
	also={{ sheets: data.sheets }}
/>
