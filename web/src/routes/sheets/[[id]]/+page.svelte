<script lang="ts">
	import { invalidateAll } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { Button } from 'flowbite-svelte';
	import Shown from '$lib/sheet/Shown.svelte';
	import { shortcut } from '$lib/ui/commands.svelte';
	import { bringIn } from '$lib/ui/bring';
	import Later from '$lib/ui/Later.svelte';
	import FileButton from '$lib/ui/FileButton.svelte';
	import type { PageProps } from './$types';

	let { data }: PageProps = $props();
	let starting = $state(false);
	const view = $derived(data.view);

	async function take(file: File) {
		if (await bringIn(file)) await invalidateAll();
	}
</script>

<svelte:head><title>{view?.sheet.name ?? 'Sheets'} · Deep Bay</title></svelte:head>

<div class="flex flex-wrap items-end gap-3 pt-5 pb-3">
	<h1 class="grow">Sheets</h1>
	<Button onclick={() => (starting = true)} {@attach shortcut('new')}>New sheet</Button>
	{#if view}
		<Button
			color="alternative"
			href="{resolve('/sheets/edit')}?id={view.sheet.id}"
			{@attach shortcut('edit')}>Edit this sheet</Button
		>
		<Button
			color="alternative"
			href="/api/sheets/{view.sheet.id}/file"
			data-sveltekit-reload
			download>Save this sheet</Button
		>
	{/if}
	<FileButton label="Sheet file" accept=".json,application/json" ontake={take}
		>Bring in a sheet</FileButton
	>
</div>
<div class="grid gap-6 lg:grid-cols-[15rem_1fr]">
	<nav aria-label="Sheets of the shop">
		<ul
			class="border-line max-lg:flex max-lg:max-h-40 max-lg:flex-wrap max-lg:gap-1 max-lg:overflow-y-auto lg:border-t"
		>
			{#each data.sheets as s (s.id)}
				<li class="border-line lg:border-b">
					<a
						href={resolve('/sheets/[[id]]', { id: s.id })}
						aria-current={s.id === view?.sheet.id ? 'page' : undefined}
						class={[
							'block min-h-11 px-2 py-1 hover:bg-water-1 max-lg:flex max-lg:items-center max-lg:rounded-sm max-lg:border max-lg:border-line lg:min-h-14',
							s.id === view?.sheet.id && 'bg-water-1 font-semibold'
						]}
					>
						{s.name}<br class="max-lg:hidden" /><span class="font-normal text-soft max-lg:sr-only"
							>{s.class}</span
						>
					</a>
				</li>
			{/each}
		</ul>
	</nav>
	{#if !view}
		<p class="py-8">No sheet yet: bring one in from a file.</p>
	{:else}
		<div class="min-w-0">
			{#key view.sheet.id}<Shown now={view} />{/key}
		</div>
	{/if}
</div>
<Later
	bind:open={starting}
	load={() => import('$lib/sheet/NewSheet.svelte')}
	also={{ sheets: data.sheets }}
/>
