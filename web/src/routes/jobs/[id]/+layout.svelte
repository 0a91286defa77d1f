<script lang="ts">
	import { atStep } from '$lib/ui/here.svelte';
	import { resolve } from '$app/paths';
	import { page } from '$app/state';
	import { Button } from 'flowbite-svelte';
	import type { Snippet } from 'svelte';
	import NotSaved from '$lib/job/NotSaved.svelte';
	import Schedule from '$lib/job/Schedule.svelte';
	import Verdict from '$lib/job/Verdict.svelte';
	import { SCREENS, TABS } from '$lib/job/screens';
	import { provideSession, Session } from '$lib/job/session.svelte';
	import Later from '$lib/ui/Later.svelte';
	import Turn from '$lib/ui/Turn.svelte';
	import { shortcut } from '$lib/ui/commands.svelte';
	import type { LayoutData } from './$types';

	let { data, children }: { data: LayoutData; children: Snippet } = $props();
	const session = $derived(new Session(data.start));
	provideSession(() => session);
	$effect(() => session.follow());

	/** A file that a machine told about itself may be dropped anywhere on its job. */
	async function drop(e: DragEvent) {
		const file = e.dataTransfer?.files[0];
		if (!file || e.defaultPrevented || session.closed) return;
		e.preventDefault();
		const { takeFile } = await import('$lib/prove/take');
		await takeFile(session, file);
	}
	const over = (e: DragEvent) => {
		if (e.dataTransfer?.types.includes('Files')) e.preventDefault();
	};

	const id = $derived(session.job.id);
	/** One step fills the screen: nothing above it. */
	const bare = $derived(
		atStep() || page.route.id === '/jobs/[id]/print' || page.route.id === '/jobs/[id]/label'
	);
	const status = $derived(session.view.status);
	// A stage that is to come has a plan and nothing else: the other screens show the one at work.
	$effect(() => {
		if (page.route.id !== SCREENS.fit.route && session.view.at > 0) void session.look(0);
	});

	let conflictOpen = $derived(session.conflict !== null);
	let othersOpen = $derived(session.ofAnother !== '');
	const last = $derived(session.now.journal.at(-1));
</script>

<svelte:window ondragover={over} ondrop={drop} />

{#if !bare}<div class="no-print flex flex-wrap items-center gap-x-6 gap-y-1 py-1">
		<div class="min-w-0 max-sm:flex-1 sm:max-w-60 lg:max-w-100">
			<h1 class="truncate text-xl">{session.job.title}</h1>
			<p class="flex gap-2 text-soft">
				<span class="truncate"
					>{[
						status.of ? `stage ${status.at ?? 1} of ${status.of}: ${status.name ?? ''}` : '',
						session.job.tag,
						session.job.sheet.name,
						session.job.owner
					]
						.filter(Boolean)
						.join(' · ')}</span
				>
				<a
					href="{resolve('/logbook/life')}?job={id}"
					class="shrink-0 underline decoration-dotted underline-offset-4">its life</a
				>
			</p>
		</div>
		<nav aria-label="This job" class="flex max-sm:order-1 max-sm:w-full">
			{#each TABS as t (t)}
				{@const s = SCREENS[t]}
				{@const here = page.route.id === s.route}
				<a
					href={resolve(s.route, { id })}
					aria-current={here ? 'page' : undefined}
					class={[
						'flex min-h-11 items-center border-b-4 px-3 hover:bg-water-1 max-sm:grow max-sm:justify-center max-sm:px-1',
						here ? 'border-ink font-semibold' : 'border-transparent'
					]}
					{@attach shortcut(s.key)}>{s.name}</a
				>
			{/each}
		</nav>
		<span class="grow max-sm:hidden"></span>
		<Schedule />
		<Button
			color="alternative"
			disabled={(session.now.revision < 2 && session.waiting.length === 0) || session.closed}
			title={last && session.now.revision > 1 && session.undone === 0
				? `takes back: ${last.says}, ${last.by}`
				: undefined}
			onclick={() => session.undo()}
			{@attach shortcut('undo')}>Undo</Button
		>
		{#if session.undone > 0 && !session.closed}
			<Button color="alternative" onclick={() => session.redo()}>Redo</Button>
		{/if}
	</div>
	<Verdict />{/if}

<p class="sr-only" role="status" aria-live="polite">{session.said}</p>
<NotSaved />

<Turn>{@render children()}</Turn>

<Later bind:open={conflictOpen} load={() => import('$lib/job/Conflict.svelte')} />
<Later bind:open={othersOpen} load={() => import('$lib/job/OfAnother.svelte')} />
