<script lang="ts">
	import { resolve } from '$app/paths';
	import { page } from '$app/state';
	import { Button } from 'flowbite-svelte';
	import type { Snippet } from 'svelte';
	import Schedule from '$lib/job/Schedule.svelte';
	import Verdict from '$lib/job/Verdict.svelte';
	import { SCREENS, TABS } from '$lib/job/screens';
	import { provideSession, Session } from '$lib/job/session.svelte';
	import Dialog from '$lib/ui/Dialog.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { shortcut } from '$lib/ui/commands.svelte';
	import { when } from '$lib/ui/text';
	import type { LayoutData } from './$types';

	let { data, children }: { data: LayoutData; children: Snippet } = $props();
	const session = $derived(new Session(data.start));
	provideSession(() => session);
	$effect(() => session.follow());

	const id = $derived(session.job.id);
	const status = $derived(session.view.status);
	// A stage that is to come has a plan and nothing else: the other screens show the one at work.
	$effect(() => {
		if (page.route.id !== SCREENS.fit.route && session.view.at > 0) void session.look(0);
	});

	// The dialog cannot be dismissed without a decision: a conflict stays until it is settled.
	let conflictOpen = $derived(session.conflict !== null);
	let othersOpen = $derived(session.ofAnother !== '');
	const last = $derived(session.now.journal.at(-1));
</script>

<div class="no-print flex flex-wrap items-center gap-x-6 gap-y-1 py-1">
	<div class="min-w-0 max-sm:flex-1 sm:max-w-60 lg:max-w-100">
		<h1 class="truncate text-xl">{session.job.title}</h1>
		<p class="truncate text-soft">
			{[
				status.of ? `stage ${status.at ?? 1} of ${status.of}: ${status.name ?? ''}` : '',
				session.job.tag,
				session.job.sheet.name,
				session.job.owner
			]
				.filter(Boolean)
				.join(' · ')}
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
		title={last && session.now.revision > 1 ? `takes back: ${last.says}, ${last.by}` : undefined}
		onclick={() => session.undo()}
		{@attach shortcut('undo')}>Undo</Button
	>
</div>
<Verdict />

<p class="sr-only" role="status" aria-live="polite">{session.said}</p>
{#if session.trouble}
	<div role="alert" class="no-print mb-2 border-l-4 border-over bg-overtint px-3 py-2">
		<div class="flex flex-wrap items-center gap-3">
			<Mark grade="stops" />
			<span class="grow">
				{session.trouble}.
				{#if session.waiting.length > 0}
					<strong
						>{session.waiting.length}
						{session.waiting.length === 1 ? 'change is' : 'changes are'} not saved yet</strong
					>: kept in this browser, and sent when it answers.
				{/if}
			</span>
			<Button onclick={() => session.again()} aria-busy={session.busy}>Send now</Button>
		</div>
		{#if session.waiting.length > 0}
			<details>
				<summary class="min-h-11 cursor-pointer py-2">Which</summary>
				<ol class="list-decimal pl-6">
					{#each session.waiting as w (w.key)}
						<li>{w.pressed ?? w.change.do}{w.back ? ': to be taken back' : ''}</li>
					{/each}
				</ol>
			</details>
		{/if}
	</div>
{/if}

{@render children()}

<Dialog open={conflictOpen} permanent title="Somebody else changed this job" size="md">
	{#if session.conflict}
		<p>Your change was not applied. Since you last saw the job:</p>
		<ul class="my-2 border-l-4 border-line pl-3">
			{#each session.conflict.missed ?? [] as m (m.revision)}
				<li><strong>{m.by}</strong>, {when(m.at)}: {m.says}</li>
			{/each}
		</ul>
		{#if session.conflict.yours}
			<p>
				Your change, on top of that: <strong>{session.conflict.would}</strong>
			</p>
		{/if}
		<div class="mt-4 flex flex-wrap gap-3">
			<Button onclick={() => session.settle(false)} data-autofocus>Take theirs, drop mine</Button>
			{#if session.conflict.yours}
				<Button color="alternative" onclick={() => session.settle(true)}
					>Put mine on top of theirs</Button
				>
			{/if}
		</div>
	{/if}
</Dialog>

<Dialog open={othersOpen} permanent title="That was somebody else" size="md">
	<p>{session.ofAnother}.</p>
	<div class="mt-4 flex flex-wrap gap-3">
		<Button onclick={() => (session.ofAnother = '')} data-autofocus>Cancel</Button>
		<Button color="alternative" onclick={() => session.undo(true)}>Take it back all the same</Button
		>
	</div>
</Dialog>
