<script lang="ts">
	// All there is to know and to decide about a plan, one panel open at a time: the one that
	// needs a look opens of itself.
	import { Accordion } from 'flowbite-svelte';
	import Fetched from '$lib/ui/Fetched.svelte';
	import { useDesk } from './desk.svelte';
	import Findings from './Findings.svelte';
	import MemoryPanel from './MemoryPanel.svelte';
	import Panel from './Panel.svelte';

	const desk = useDesk();
	const session = $derived(desk.session);
	const view = $derived(session.view);
	const resolved = $derived(desk.resolved);
	const planner = desk.planner;

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
</script>

<Accordion flush multiple>
	<Panel id="findings" title="Findings" says={resolved.tally}>
		<Findings />
	</Panel>
	{#if desk.shown === 'planned'}
		<Panel id="plan" title="Best plan" says={planner.advice ? '' : 'not asked yet'}>
			<Fetched load={() => import('./PlanPanel.svelte')} />
		</Panel>
	{/if}
	<Panel id="memory" title="Memory" says={resolved.memory.says}>
		<MemoryPanel
			memory={resolved.memory}
			variants={desk.shown === 'planned' ? view.variants : []}
			onuse={session.closed ? undefined : (v) => desk.change({ do: 'moves', moves: v.moves })}
		/>
	</Panel>
	<Panel id="after" title="Afterwards" says={view.starts ?? 'nobody said'}>
		<Fetched load={() => import('./After.svelte')} />
	</Panel>
	{#if session.job.sheet.settings.length + (session.job.sheet.processors?.length ?? 0) > 0}
		<Panel id="settings" title="Settings"
			><Fetched load={() => import('./Settings.svelte')} /></Panel
		>
	{/if}
	{#if resolved.lanes.length + (session.job.sheet.bays?.length ?? 0) > 0}
		<Panel id="room" title="Bays and lanes"><Fetched load={() => import('./Room.svelte')} /></Panel>
	{/if}
	{#if view.looked.length + view.usual.length > 0}
		<Panel
			id="looked"
			title={view.looked.length > 0 ? 'Looked up at the bench' : 'What nobody states'}
			says={String(view.looked.length || view.usual.length)}
			><Fetched load={() => import('./LookedPanel.svelte')} /></Panel
		>
	{/if}
</Accordion>
