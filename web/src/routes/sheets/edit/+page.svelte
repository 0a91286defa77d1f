<script lang="ts">
	import { beforeNavigate, goto } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { onMount, untrack } from 'svelte';
	import { api } from '$lib/api/client';
	import { refusal, refused } from '$lib/api/refused';
	import type { Problem, ProblemDoc } from '$lib/api/types.gen';
	import { Draft, leftBehind, provideDraft } from '$lib/sheet/draft.svelte';
	import Beside from '$lib/sheet/Beside.svelte';
	import DraftBar from '$lib/sheet/DraftBar.svelte';
	import Faults from '$lib/sheet/Faults.svelte';
	import Lanes from '$lib/sheet/Lanes.svelte';
	import Machine from '$lib/sheet/Machine.svelte';
	import Memory from '$lib/sheet/Memory.svelte';
	import { goTo, TABS, tabOf, type Tab } from '$lib/sheet/places';
	import Rules from '$lib/sheet/Rules.svelte';
	import { apart } from '$lib/sheet/sentences';
	import Settings from '$lib/sheet/Settings.svelte';
	import Sockets from '$lib/sheet/Sockets.svelte';
	import Fetched from '$lib/ui/Fetched.svelte';
	import Later from '$lib/ui/Later.svelte';
	import TabBar from '$lib/ui/TabBar.svelte';
	import { toasts } from '$lib/ui/toasts.svelte';
	import { who } from '$lib/ui/who.svelte';
	import type { PageProps } from './$types';

	let { data }: PageProps = $props();
	const start = untrack(() => apart(data.sheet));
	const kept = untrack(() => leftBehind(data.key));
	// A draft of this very revision goes on; an older one is offered, not forced.
	const goesOn = kept !== null && kept.revision === untrack(() => data.revision);
	let draft = $state.raw(
		untrack(() => new Draft(data.key, start, data.revision, goesOn ? kept.sheet : start))
	);
	provideDraft(() => draft);
	onMount(() => () => draft.close());

	let tab = $state<Tab>(untrack(() => (data.fresh ? 'machine' : 'm2')));
	let chosen = $state<string>();
	let busy = $state(false);
	let conflict = $state.raw<ProblemDoc | null>(null);
	let restored = $state(goesOn ? kept.at : undefined);
	const faultsIn = (t: Tab) =>
		draft.problems.filter((p) => tabOf(draft.sheet, p.pointer) === t).length;

	function go(p: Problem) {
		tab = tabOf(draft.sheet, p.pointer);
		const [, list, i] = p.pointer.split('/');
		if (list === 'sockets') chosen = draft.sheet.sockets[Number(i)]?.id;
		void goTo(p.pointer);
	}

	async function save() {
		if (busy) return;
		busy = true;
		try {
			const sheet = $state.snapshot(draft.sheet) as typeof draft.sheet;
			const stamp = { revision: draft.revision, key: crypto.randomUUID(), by: who.name };
			const view = await api.putSheet(sheet, stamp);
			draft.settled(view.sheet, view.revision);
			leaving = true;
			await goto(resolve('/sheets/[[id]]', { id: view.sheet.id }), { invalidateAll: true });
		} catch (e) {
			const { problem } = refusal(e);
			if (problem.sheet) conflict = problem;
			else refused(e);
		} finally {
			busy = false;
		}
	}
	/** After a conflict: mine as the next revision, or theirs instead. */
	async function settle(keepMine: boolean) {
		const now = conflict?.sheet;
		if (!now) return;
		conflict = null;
		if (!keepMine) return draft.settled(apart(now.sheet), now.revision);
		draft.revision = now.revision;
		await save();
	}
	function giveUp() {
		draft.settled(start, draft.revision);
		restored = undefined;
	}

	let leaving = false;
	beforeNavigate(() => {
		if (draft.dirty && !leaving) toasts.add('done', 'The draft is kept in this browser.');
	});
</script>

<svelte:head><title>Editing {draft.sheet.name} · Deep Bay</title></svelte:head>

<DraftBar {busy} fresh={data.fresh} {restored} ongiveup={giveUp} onsave={save} />

<div class="grid items-start gap-5 lg:grid-cols-[25rem_minmax(0,1fr)]">
	<Beside pages={data.pictures} bind:chosen />
	<div class="min-w-0">
		<Faults ongo={go} />
		<TabBar label="Facts of the sheet" tabs={TABS} bind:now={tab}>
			{#snippet note(t)}{#if faultsIn(t) > 0}<span class="text-over">
						· {faultsIn(t)}</span
					>{/if}{/snippet}
			{#if tab === 'machine'}<Machine fresh={data.fresh} />
			{:else if tab === 'lanes'}<Lanes />
			{:else if tab === 'layers'}<Fetched load={() => import('$lib/sheet/Layers.svelte')} />
			{:else if tab === 'settings'}<Settings />
			{:else if tab === 'rules'}<Rules />
			{:else}
				<Sockets kind={tab} {chosen} onchoose={(id) => (chosen = id)} />
				{#if tab === 'memory'}<div class="mt-4"><Memory /></div>{/if}
			{/if}
		</TabBar>
	</div>
</div>

<Later
	bind:open={() => conflict !== null, (yes) => yes || (conflict = null)}
	load={() => import('$lib/sheet/Changed.svelte')}
	also={{ conflict, onsettle: settle }}
/>
