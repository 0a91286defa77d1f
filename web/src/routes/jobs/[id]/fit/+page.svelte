<script lang="ts">
	import { Accordion } from 'flowbite-svelte';
	import { tick } from 'svelte';
	import Chart from '$lib/chart/Chart.svelte';
	import { Desk, provideDesk } from '$lib/job/desk.svelte';
	import Dock from '$lib/job/Dock.svelte';
	import Findings from '$lib/job/Findings.svelte';
	import LookedPanel from '$lib/job/LookedPanel.svelte';
	import MemoryPanel from '$lib/job/MemoryPanel.svelte';
	import NewerSheet from '$lib/job/NewerSheet.svelte';
	import Panel from '$lib/job/Panel.svelte';
	import Room from '$lib/job/Room.svelte';
	import { useSession } from '$lib/job/session.svelte';
	import Settings from '$lib/job/Settings.svelte';
	import Stages from '$lib/job/Stages.svelte';
	import Which from '$lib/job/Which.svelte';
	import { command } from '$lib/ui/commands.svelte';
	import Later from '$lib/ui/Later.svelte';

	const get = useSession();
	const desk = new Desk(get);
	provideDesk(desk);
	const session = $derived(get());
	const view = $derived(session.view);
	const resolved = $derived(desk.resolved);
	const { hand, planner } = desk;
	desk.panel = get().view.planned.findings.some((f) => !f.quiet) ? 'findings' : 'memory';

	const stopped = $derived(resolved.findings.some((f) => f.severity === 'stops'));
	$effect(() => {
		if (stopped) desk.panel = 'findings';
	});
	const unsaid = $derived(view.blocks.some((b) => b.start));
	$effect(() => {
		if (unsaid && !stopped) desk.panel = 'after';
	});
	$effect(() => {
		if (planner.advice) desk.panel = 'plan';
	});
	$effect(() => command('plan', () => desk.plan()));
	$effect(() => command('choose', () => desk.ask('shop', !session.closed)));
	$effect(() => command('put down', () => hand.putDown()));
	$effect(() =>
		command('pick up', async () => {
			const mat = session.onMat(desk.shown).filter((x) => !session.partOf(x.id)?.fitting);
			if (mat.length === 0) return;
			const i = mat.findIndex((x) => x.id === hand.item);
			await hand.pickUp(mat[(i + 1) % mat.length]!.id);
			await tick();
			document.querySelector<HTMLElement>('[data-testid=chart] button[tabindex="0"]')?.focus();
		})
	);
	$effect(() =>
		command('take out', () => {
			const item = desk.here?.state.item;
			if (item && !session.closed) void hand.takeOut(item);
		})
	);
	$effect(() => () => hand.putDown());
</script>

<svelte:head><title>Fit: {session.job.title} · Deep Bay</title></svelte:head>

<div
	class="grid grid-cols-[minmax(0,1fr)] gap-x-6 gap-y-3 max-lg:pb-16 lg:grid-cols-[minmax(0,1fr)_21.5rem]"
>
	<section aria-label="Board">
		<Stages />
		<Which />
		<Chart
			sheet={session.job.sheet}
			{resolved}
			title="Board of the {session.job.sheet.name}, {desk.shown === 'planned'
				? 'as planned'
				: 'as found'}"
			name={desk.name}
			chosen={desk.chosen}
			changed={desk.changed}
			offers={hand.item && hand.offers.length > 0 ? hand.offers : null}
			onsocket={(id) => desk.press(id)}
			draggable={hand.draggable}
		/>
	</section>

	<div
		class="grid content-start gap-3 lg:sticky lg:top-16 lg:max-h-[calc(100dvh-4.5rem)] lg:overflow-y-auto"
	>
		<Dock />
		<NewerSheet />
		<Accordion flush multiple>
			<Panel id="findings" title="Findings" says={resolved.tally}>
				<Findings />
			</Panel>
			{#if desk.shown === 'planned'}
				<Panel id="plan" title="Best plan" says={planner.advice ? '' : 'not asked yet'}>
					{#await import('$lib/job/PlanPanel.svelte') then { default: PlanPanel }}<PlanPanel
						/>{/await}
				</Panel>
			{/if}
			<Panel
				id="memory"
				title="Memory"
				says="{resolved.memory.total}, {resolved.memory.speed}, {resolved.memory.spread}"
			>
				<MemoryPanel
					memory={resolved.memory}
					variants={desk.shown === 'planned' ? view.variants : []}
					onuse={session.closed ? undefined : (v) => desk.change({ do: 'moves', moves: v.moves })}
				/>
			</Panel>
			<Panel id="after" title="Afterwards" says={view.starts ?? 'nobody said'}>
				{#await import('$lib/job/After.svelte') then { default: After }}<After />{/await}
			</Panel>
			{#if session.job.sheet.settings.length + (session.job.sheet.processors?.length ?? 0) > 0}
				<Panel id="settings" title="Settings"><Settings /></Panel>
			{/if}
			{#if resolved.lanes.length + (session.job.sheet.bays?.length ?? 0) > 0}
				<Panel id="room" title="Bays and lanes"><Room /></Panel>
			{/if}
			{#if view.looked.length + view.usual.length > 0}
				<Panel
					id="looked"
					title={view.looked.length > 0 ? 'Looked up at the bench' : 'What nobody states'}
					says={String(view.looked.length || view.usual.length)}><LookedPanel /></Panel
				>
			{/if}
		</Accordion>
	</div>
</div>

{#if hand.ghost}
	<div
		class="pointer-events-none fixed z-50 rounded-sm border border-over bg-overtint px-3 py-2 text-ink shadow"
		style:left="{hand.ghost.x + 10}px"
		style:top="{hand.ghost.y + 10}px"
	>
		{desk.name(hand.item)}
	</div>
{/if}

<Later
	bind:open={() => desk.dialog === 'add', (yes) => desk.ask('add', yes)}
	load={() => import('$lib/job/AddPart.svelte')}
	also={{ which: desk.shown }}
/>
<Later
	bind:open={() => desk.correcting !== undefined, (yes) => yes || (desk.correcting = undefined)}
	load={() => import('$lib/job/EditPiece.svelte')}
	also={{ item: desk.correcting }}
/>
<Later
	bind:open={() => desk.dialog === 'shop', (yes) => desk.ask('shop', yes)}
	load={() => import('$lib/job/Shop.svelte')}
	also={{ planner }}
/>
<Later
	bind:open={() => desk.dialog === 'wish', (yes) => desk.ask('wish', yes)}
	load={() => import('$lib/job/EditWish.svelte')}
/>
