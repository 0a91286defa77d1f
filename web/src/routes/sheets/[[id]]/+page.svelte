<script lang="ts">
	import { invalidateAll } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { Button } from 'flowbite-svelte';
	import Board from '$lib/chart/Board.svelte';
	import { bringIn } from '$lib/ui/bring';
	import FileButton from '$lib/ui/FileButton.svelte';
	import type { PageProps } from './$types';

	let { data }: PageProps = $props();
	let chosen = $state<string>();
	const view = $derived(data.view);
	const socket = $derived(view?.sheet.sockets.find((k) => k.id === chosen));

	async function take(file: File) {
		if (await bringIn(file)) await invalidateAll();
	}

	const facts = $derived(
		!socket
			? []
			: (
					[
						['kind', socket.kind],
						['where', socket.where],
						['fed by', socket.group ?? socket.root],
						['PCIe', socket.gen && `Gen ${socket.gen} x${socket.lanes ?? '?'}`],
						['speaks', socket.protocols?.join(', ')],
						['key', socket.key],
						['posts at', socket.lengthsMM && socket.lengthsMM.join(', ') + ' mm'],
						['free above', socket.clearTopMM && `${socket.clearTopMM} mm`],
						['free below', socket.clearBottomMM && `${socket.clearBottomMM} mm`],
						['takes', socket.drives?.join(', ')],
						['bay height', socket.bayHeightMM && `${socket.bayHeightMM} mm`],
						['fed from', socket.power],
						['can be split', socket.splits?.map((s) => s.join('+')).join(', ')],
						['channel', socket.channel]
					] as const
				).filter(([, v]) => v)
	);
</script>

<svelte:head><title>{view?.sheet.name ?? 'Sheets'} · Deep Bay</title></svelte:head>

<div class="flex flex-wrap items-end gap-3 pt-5 pb-3">
	<h1 class="grow">Sheets</h1>
	{#if view}
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
		<ul class="border-t border-line">
			{#each data.sheets as s (s.id)}
				<li class="border-b border-line">
					<a
						href={resolve('/sheets/[[id]]', { id: s.id })}
						aria-current={s.id === view?.sheet.id ? 'page' : undefined}
						class={[
							'block min-h-14 px-2 py-1 hover:bg-water-1',
							s.id === view?.sheet.id && 'bg-water-1 font-semibold'
						]}
						onclick={() => (chosen = undefined)}
					>
						{s.name}<br /><span class="font-normal text-soft">{s.class}</span>
					</a>
				</li>
			{/each}
		</ul>
	</nav>
	{#if !view}
		<p class="py-8">No sheet yet: bring one in from a file.</p>
	{:else}
		<div class="min-w-0">
			<h2>{view.sheet.name}</h2>
			<p class="text-soft">{view.sheet.source ?? 'source not stated'}</p>
			<Board
				sheet={view.sheet}
				resolved={view.empty}
				title="Board of the {view.sheet.name}"
				name={() => undefined}
				cardLength={() => undefined}
				{chosen}
				onsocket={(id) => (chosen = chosen === id ? undefined : id)}
			/>
			<div class="mt-4 grid gap-6 md:grid-cols-2">
				<section aria-labelledby="rules-h">
					<h2 id="rules-h">Rules</h2>
					{#if view.rules.length === 0}<p>None.</p>{/if}
					<ul class="list-disc pl-5">
						{#each view.rules as r (r)}<li>{r}</li>{/each}
					</ul>
				</section>
				<section aria-labelledby="facts-h" aria-live="polite">
					<h2 id="facts-h">{socket?.id ?? 'A socket'}</h2>
					{#if !socket}
						<p class="text-soft">Choose a socket to read what the sheet says of it.</p>
					{/if}
					<dl class="grid grid-cols-[auto_1fr] gap-x-4">
						{#each facts as [what, value] (what)}
							<dt class="text-soft">{what}</dt>
							<dd>{value}</dd>
						{/each}
					</dl>
				</section>
			</div>
		</div>
	{/if}
</div>
