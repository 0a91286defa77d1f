<script lang="ts">
	import { beforeNavigate, goto } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { Button } from 'flowbite-svelte';
	import { onMount, tick, untrack } from 'svelte';
	import { api, ApiError } from '$lib/api/client';
	import type { Problem, ProblemDoc } from '$lib/api/types.gen';
	import Board from '$lib/chart/Board.svelte';
	import { Draft, leftBehind, provideDraft } from '$lib/sheet/draft.svelte';
	import Lanes from '$lib/sheet/Lanes.svelte';
	import Machine from '$lib/sheet/Machine.svelte';
	import Memory from '$lib/sheet/Memory.svelte';
	import Place from '$lib/sheet/Place.svelte';
	import Rules from '$lib/sheet/Rules.svelte';
	import { apart } from '$lib/sheet/sentences';
	import Settings from '$lib/sheet/Settings.svelte';
	import Sockets from '$lib/sheet/Sockets.svelte';
	import Dialog from '$lib/ui/Dialog.svelte';
	import { shortcut } from '$lib/ui/commands.svelte';
	import { toasts } from '$lib/ui/toasts.svelte';
	import { who } from '$lib/ui/who.svelte';
	import type { PageProps } from './$types';

	let { data }: PageProps = $props();
	const start = untrack(() => apart(data.sheet));
	const kept = untrack(() => leftBehind(data.key));
	// A draft of this very revision goes on; an older one is offered, not forced.
	const goesOn = kept !== null && kept.revision === untrack(() => data.revision);
	let draft = $state.raw(
		new Draft(
			untrack(() => data.key),
			start,
			untrack(() => data.revision),
			goesOn ? kept.sheet : start
		)
	);
	provideDraft(() => draft);
	onMount(() => () => draft.close());

	const TABS = [
		['machine', 'Machine'],
		['lanes', 'Lanes'],
		['m2', 'M.2'],
		['pcie', 'Slots'],
		['sata', 'Drives'],
		['memory', 'Memory'],
		['usb', 'USB'],
		['settings', 'Settings'],
		['rules', 'Rules']
	] as const;
	type Tab = (typeof TABS)[number][0];
	let tab = $state<Tab>(untrack(() => (data.fresh ? 'machine' : 'm2')));
	let chosen = $state<string>();
	let busy = $state(false);
	let conflict = $state.raw<ProblemDoc | null>(null);
	let restored = $state(goesOn);

	/** The tab on which a place of the file is written. */
	function tabOf(pointer: string): Tab {
		const [, list, i] = pointer.split('/');
		switch (list) {
			case 'sockets': {
				const kind = draft.sheet.sockets[Number(i)]?.kind ?? 'm2';
				return (
					({ dimm: 'memory', sodimm: 'memory', u2: 'sata' } as Record<string, Tab>)[kind] ??
					(kind as Tab)
				);
			}
			case 'bays':
				return 'sata';
			case 'roots':
			case 'groups':
			case 'processors':
				return 'lanes';
			case 'memory':
			case 'settings':
			case 'rules':
				return list;
		}
		return 'machine';
	}
	/** A place of the file in words: "M2_1, lanes" for /sockets/0/lanes. */
	function placeOf(pointer: string): string {
		const [list, i, ...rest] = pointer.slice(1).split('/');
		const id = i && draft.get(`/${list}/${i}/id`);
		return id ? [id, ...rest].join(', ') : [list, i, ...rest].filter(Boolean).join(', ');
	}
	const faultsIn = (t: Tab) => draft.problems.filter((p) => tabOf(p.pointer) === t).length;

	/** Goes to the field of a fault, or to the nearest around it. */
	async function goTo(p: Problem) {
		tab = tabOf(p.pointer);
		const [, list, i] = p.pointer.split('/');
		if (list === 'sockets') chosen = draft.sheet.sockets[Number(i)]?.id;
		await tick();
		for (let at = p.pointer; at; at = at.slice(0, at.lastIndexOf('/'))) {
			const field =
				document.querySelector<HTMLElement>(`[data-at="${at}"]`) ??
				document.querySelector<HTMLElement>(`[data-at^="${at}/"]`);
			if (field) {
				field.focus();
				field.scrollIntoView({ block: 'center' });
				return;
			}
		}
	}

	async function save() {
		if (busy) return;
		busy = true;
		try {
			const sheet = $state.snapshot(draft.sheet) as typeof draft.sheet;
			const view = await api.putSheet(sheet, {
				revision: draft.revision,
				key: crypto.randomUUID(),
				by: who.name
			});
			draft.settled(view.sheet, view.revision);
			leaving = true;
			await goto(resolve('/sheets/[[id]]', { id: view.sheet.id }), { invalidateAll: true });
		} catch (e) {
			if (!(e instanceof ApiError)) throw e;
			if (e.problem.sheet) conflict = e.problem;
			else toasts.add('error', e.says);
		} finally {
			busy = false;
		}
	}
	/** After a conflict: mine as the next revision, or theirs instead. */
	async function settle(keepMine: boolean) {
		const now = conflict?.sheet;
		if (!now) return;
		conflict = null;
		if (keepMine) {
			draft.revision = now.revision;
			await save();
		} else draft.settled(apart(now.sheet), now.revision);
	}
	function giveUp() {
		draft.settled(start, draft.revision);
		restored = false;
	}

	let leaving = false;
	beforeNavigate(() => {
		if (draft.dirty && !leaving) toasts.add('done', 'The draft is kept in this browser.');
	});

	function onmove(id: string, xMM: number, yMM: number) {
		const place = draft.sheet.sockets.find((k) => k.id === id)?.place;
		const { widthMM, heightMM } = draft.sheet.board;
		if (!place) return;
		place.xMM = Math.max(0, Math.min(widthMM - place.widthMM, xMM));
		place.yMM = Math.max(0, Math.min(heightMM - place.heightMM, yMM));
	}
</script>

<svelte:head><title>Editing {draft.sheet.name} · Deep Bay</title></svelte:head>

<div class="flex flex-wrap items-center gap-2 pt-4 pb-2">
	<h1 class="min-w-0 grow">{draft.sheet.name || 'Unnamed machine'}</h1>
	<p role="status" class={['px-2', draft.problems.length > 0 && 'text-over']}>
		{#if draft.offline}
			Deep Bay does not answer; the draft is kept here
		{:else if draft.check === null}
			Being judged…
		{:else if draft.problems.length > 0}
			<strong>{draft.problems.length} {draft.problems.length === 1 ? 'fault' : 'faults'}</strong>
		{:else}
			No fault{draft.dirty ? ', not saved yet' : ''}
		{/if}
	</p>
	<Button
		color="alternative"
		disabled={!draft.canUndo}
		onclick={() => draft.undo()}
		{@attach shortcut('undo')}>Undo</Button
	>
	<Button
		color="alternative"
		disabled={!draft.canRedo}
		onclick={() => draft.redo()}
		{@attach shortcut('redo')}>Redo</Button
	>
	{#if draft.dirty || restored}<Button color="alternative" onclick={giveUp}
			>Discard the draft</Button
		>{/if}
	<Button
		onclick={save}
		aria-busy={busy}
		disabled={draft.problems.length > 0 || (!draft.dirty && !data.fresh)}>Save to the shop</Button
	>
</div>
{#if restored}
	<p class="border-l-4 border-over bg-overtint px-3 py-2">
		This goes on with the draft of {new Date(kept!.at).toLocaleString()} that was left in this browser.
	</p>
{/if}

<div class="grid items-start gap-5 lg:grid-cols-[25rem_1fr]">
	<section aria-label="Board" class="min-w-0 lg:sticky lg:top-2">
		{#if draft.check?.empty}
			<Board
				sheet={draft.sheet}
				resolved={draft.check.empty}
				title="Board of the {draft.sheet.name}, as written"
				{chosen}
				onsocket={(id) => (chosen = id)}
				{onmove}
				onhold={() => draft.hold()}
				onrelease={() => draft.release()}
			/>
		{/if}
		{#if chosen}
			<section aria-label="The chosen socket" class="mt-2 border-l-4 border-ink pl-3">
				<Place id={chosen} />
			</section>
		{:else}
			<p class="mt-2 text-soft">
				Choose a socket on the board to place it. What is not stated stays unknown, and is never
				taken for a yes.
			</p>
		{/if}
	</section>

	<div class="min-w-0">
		{#if draft.problems.length > 0}
			<section aria-labelledby="faults-h" class="mb-3 border-l-4 border-over bg-overtint px-3 py-2">
				<h2 id="faults-h">Faults</h2>
				<ul>
					{#each draft.problems as p (p.pointer + p.says)}
						<li>
							<button
								class="min-h-11 py-1 text-left underline decoration-dotted underline-offset-4"
								onclick={() => goTo(p)}
							>
								{#if p.pointer}<strong>{placeOf(p.pointer)}</strong>:{/if}
								{p.says}
							</button>
							{#if p.cure}<span class="text-soft">{p.cure}</span>{/if}
						</li>
					{/each}
				</ul>
			</section>
		{/if}
		<div
			class="flex flex-wrap gap-x-1 border-b border-line"
			role="tablist"
			aria-label="Facts of the sheet"
		>
			{#each TABS as [t, label] (t)}
				{@const faults = faultsIn(t)}
				<button
					role="tab"
					id="tab-{t}"
					aria-selected={tab === t}
					aria-controls="facts"
					class={[
						'min-h-11 border-b-4 px-3 hover:bg-water-1',
						tab === t ? 'border-ink font-semibold' : 'border-transparent'
					]}
					onclick={() => (tab = t)}
				>
					{label}{#if faults > 0}<span class="text-over"> · {faults}</span>{/if}
				</button>
			{/each}
		</div>
		<div
			id="facts"
			role="tabpanel"
			tabindex="-1"
			aria-labelledby="tab-{tab}"
			class="py-3 outline-none"
		>
			{#if tab === 'machine'}<Machine fresh={data.fresh} />
			{:else if tab === 'lanes'}<Lanes />
			{:else if tab === 'settings'}<Settings />
			{:else if tab === 'rules'}<Rules />
			{:else}
				<Sockets kind={tab} {chosen} onchoose={(id) => (chosen = id)} />
				{#if tab === 'memory'}<div class="mt-4"><Memory /></div>{/if}
			{/if}
		</div>
	</div>
</div>

<Dialog open={conflict !== null} title="Changed meanwhile" permanent>
	{#if conflict?.sheet}
		<p>{conflict.detail}. The other version has:</p>
		<ul class="my-2 list-disc pl-5">
			{#each conflict.sheet.differs as d (d)}<li>{d}</li>{/each}
		</ul>
		<div class="flex flex-wrap gap-3">
			<Button onclick={() => settle(true)}>Save mine over it</Button>
			<Button color="alternative" onclick={() => settle(false)}>Take the other one</Button>
		</div>
	{/if}
</Dialog>
