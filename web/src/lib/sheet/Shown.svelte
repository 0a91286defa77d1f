<script lang="ts">
	// A sheet to read: its board, its rules, what it says of a socket, its versions.
	import { invalidateAll } from '$app/navigation';
	import { Button } from 'flowbite-svelte';
	import { api } from '$lib/api/client';
	import { refused } from '$lib/api/refused';
	import type { SheetView } from '$lib/api/types.gen';
	import Chart from '$lib/chart/Chart.svelte';
	import Pages from './Pages.svelte';
	import Fetched from '$lib/ui/Fetched.svelte';
	import { when } from '$lib/ui/text';
	import { who } from '$lib/ui/who.svelte';

	/** The sheet as the shop has it. */
	let { now }: { now: SheetView } = $props();
	let chosen = $state<string>();
	/** An older version that is looked at in its place. */
	let older = $state.raw<SheetView | null>(null);
	const view = $derived(older ?? now);
	const facts = $derived(view.facts.find((f) => f.socket === chosen)?.facts ?? []);

	async function look(revision: number) {
		try {
			older = revision === now.revision ? null : await api.sheetAt(fetch, now.sheet.id, revision);
		} catch (e) {
			refused(e);
		}
	}
	/** An older version becomes the next one; nothing is lost. */
	async function bringBack() {
		if (!older) return;
		try {
			await api.putSheet(older.sheet, {
				revision: now.revision,
				key: crypto.randomUUID(),
				by: who.name,
				back: older.revision
			});
			older = null;
			await invalidateAll();
		} catch (e) {
			refused(e);
		}
	}
</script>

<h2>{view.sheet.name}</h2>
<p class="text-soft">{view.sheet.source ?? 'source not stated'}</p>
{#if older !== null}
	<p class="my-2 flex flex-wrap items-center gap-3 border-l-4 border-over bg-overtint px-3 py-2">
		Revision {older.revision} of {now.revision}, as it was.
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
{#if older === null}<Fetched
		load={() => import('$lib/logbook/Model.svelte')}
		also={{ sheet: now.sheet.id }}
	/>{/if}
<div class="mt-4 grid gap-6 md:grid-cols-2">
	<section aria-labelledby="rules-h">
		<h2 id="rules-h">Rules</h2>
		{#if view.rules.length === 0}<p>None.</p>{/if}
		<ul class="list-disc pl-5">
			{#each view.rules as r (r)}<li>{r}</li>{/each}
		</ul>
	</section>
	<section aria-labelledby="facts-h" aria-live="polite">
		<h2 id="facts-h">{facts.length > 0 ? chosen : 'A socket'}</h2>
		{#if facts.length === 0}
			<p class="text-soft">Choose a socket to read what the sheet says of it.</p>
		{/if}
		<dl class="grid grid-cols-[auto_1fr] gap-x-4">
			{#each facts as f (f.what)}
				<dt class="text-soft">{f.what}</dt>
				<dd>
					{f.value}
					{#if f.note}<span class="text-soft"> · {f.note}</span>{/if}
				</dd>
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
	{#if !older}<Pages sheet={view.sheet.id} pages={view.pictures} />{/if}
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
						<span class="block text-soft">{e.by}, {when(e.at)}</span>
					</button>
				</li>
			{/each}
		</ol>
	</section>
</div>
