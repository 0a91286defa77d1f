<script lang="ts">
	import { invalidateAll } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { Button } from 'flowbite-svelte';
	import { api, ApiError } from '$lib/api/client';
	import type { SheetView } from '$lib/api/types.gen';
	import Chart from '$lib/chart/Chart.svelte';
	import NewSheet from '$lib/sheet/NewSheet.svelte';
	import { shortcut } from '$lib/ui/commands.svelte';
	import { toasts } from '$lib/ui/toasts.svelte';
	import { who } from '$lib/ui/who.svelte';
	import { bringIn } from '$lib/ui/bring';
	import FileButton from '$lib/ui/FileButton.svelte';
	import type { PageProps } from './$types';

	let { data }: PageProps = $props();
	let chosen = $state<string>();
	let starting = $state(false);
	/** An older version that is looked at, in place of the one in the shop. */
	let older = $state.raw<SheetView | null>(null);
	const view = $derived(older?.sheet.id === data.view?.sheet.id ? older : data.view);
	const socket = $derived(view?.sheet.sockets.find((k) => k.id === chosen));

	async function take(file: File) {
		if (await bringIn(file)) await invalidateAll();
	}
	async function look(revision: number) {
		if (!data.view) return;
		try {
			older =
				revision === data.view.revision
					? null
					: await api.sheetAt(fetch, data.view.sheet.id, revision);
		} catch (e) {
			if (!(e instanceof ApiError)) throw e;
			toasts.add('error', e.message);
		}
	}
	/** An older version becomes the next one; nothing is lost. */
	async function bringBack() {
		if (!older || !data.view) return;
		try {
			await api.putSheet(older.sheet, {
				revision: data.view.revision,
				key: crypto.randomUUID(),
				by: who.name,
				back: older.revision
			});
			older = null;
			await invalidateAll();
		} catch (e) {
			if (!(e instanceof ApiError)) throw e;
			toasts.add('error', e.message);
		}
	}

	const answer = (a: boolean | undefined) => (a === undefined ? undefined : a ? 'yes' : 'no');
	const facts = $derived(
		!socket
			? []
			: (
					[
						['kind', socket.kind],
						['where', socket.where],
						['USB', socket.usb],
						['room for cards', socket.widthMM && `${socket.widthMM} mm wide`],
						[
							'under the card at opening',
							socket.underOpening &&
								`${socket.underOpening}, with ${socket.clearUnderCardMM ?? '?'} mm free`
						],
						['data lead', answer(socket.lead)],
						['held by', socket.holder],
						['that holder is there', answer(socket.holderThere)],
						['screws', socket.thread],
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
			{#if older}
				<p
					class="my-2 flex flex-wrap items-center gap-3 border-l-4 border-over bg-overtint px-3 py-2"
				>
					Revision {older.revision} of {data.view?.revision}, as it was.
					<Button onclick={bringBack}>Bring it back</Button>
					<Button color="alternative" onclick={() => (older = null)}>Show the current one</Button>
				</p>
			{/if}
			<Chart
				sheet={view.sheet}
				resolved={view.empty}
				title="Board of the {view.sheet.name}"
				name={() => undefined}
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
				{#if view.sheet.bays?.length}
					<section aria-labelledby="bays-h">
						<h2 id="bays-h">Bays</h2>
						<ul class="list-disc pl-5">
							{#each view.empty.bays as b (b.bay)}<li><strong>{b.bay}</strong> {b.says}</li>{/each}
						</ul>
					</section>
				{/if}
				<section aria-labelledby="history-h">
					<h2 id="history-h">History</h2>
					<ol reversed class="border-t border-line">
						{#each [...view.history].reverse() as e (e.revision)}
							<li>
								<button
									class={[
										'min-h-11 w-full border-b border-line px-2 py-1 text-left hover:bg-water-1',
										e.revision === view.revision && 'bg-water-1'
									]}
									aria-pressed={e.revision === view.revision}
									onclick={() => look(e.revision)}
								>
									<strong>{e.revision}</strong>
									{e.says}
									<span class="block text-soft">{e.by}, {new Date(e.at).toLocaleString()}</span>
								</button>
							</li>
						{/each}
					</ol>
				</section>
			</div>
		</div>
	{/if}
</div>
<NewSheet bind:open={starting} sheets={data.sheets} />
