<script lang="ts">
	import { tick } from 'svelte';
	import Chart from '$lib/chart/Chart.svelte';
	import { Desk, provideDesk } from '$lib/job/desk.svelte';
	import Dialogs from '$lib/job/Dialogs.svelte';
	import Dock from '$lib/job/Dock.svelte';
	import NewerSheet from '$lib/job/NewerSheet.svelte';
	import Panels from '$lib/job/Panels.svelte';
	import { useSession } from '$lib/job/session.svelte';
	import Which from '$lib/job/Which.svelte';
	import { command } from '$lib/ui/commands.svelte';
	import Fetched from '$lib/ui/Fetched.svelte';
	import Turn from '$lib/ui/Turn.svelte';

	const get = useSession();
	const desk = new Desk(get);
	provideDesk(desk);
	const session = $derived(get());
	const resolved = $derived(desk.resolved);
	const { hand } = desk;
	desk.panel = get().view.planned.findings.some((f) => !f.quiet) ? 'findings' : 'memory';
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
		{#if session.view.stages.length > 0}<Fetched
				load={() => import('$lib/job/Stages.svelte')}
			/>{/if}
		<Which />
		<Turn
			><Chart
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
			/></Turn
		>
	</section>

	<div
		class="grid content-start gap-3 lg:sticky lg:top-16 lg:max-h-[calc(100dvh-4.5rem)] lg:overflow-y-auto"
	>
		<Turn
			><Dock />
			<NewerSheet />
			<Panels /></Turn
		>
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

<Dialogs />
