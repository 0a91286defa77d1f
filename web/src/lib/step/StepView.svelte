<script lang="ts">
	// One step fills the screen: what, where, with what, what can hurt, and the next. For hands
	// that hold a screwdriver: Enter or a large button says done, arrows only look.
	import { resolve } from '$app/paths';
	import { Button } from 'flowbite-svelte';
	import { onMount, tick, untrack } from 'svelte';
	import { on } from 'svelte/events';
	import type { BenchView } from '$lib/api/types.gen';
	import * as ask from '$lib/step/api';
	import { useSession } from '$lib/job/session.svelte';
	import Ends from '$lib/job/Ends.svelte';
	import Held from '$lib/job/Held.svelte';
	import TestState from '$lib/job/TestState.svelte';
	import { shortcut } from '$lib/ui/commands.svelte';
	import Later from '$lib/ui/Later.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import Quiet from '$lib/ui/Quiet.svelte';
	import { when } from '$lib/ui/text';
	import Aside from './Aside.svelte';
	import Motion from './Motion.svelte';
	import Plug from './Plug.svelte';
	import Picture from './Picture.svelte';
	import { m2Of, plugAt, socketAt } from './geometry';
	import { speech } from './speak.svelte';
	import { Timer } from './timer.svelte';

	const get = useSession();
	const session = $derived(get());
	const view = $derived(session.view);
	const order = $derived(view.order);
	const done = (id: string) => session.tick(id) !== undefined;
	const firstOpen = () => order.find((s) => !done(s.id) && session.test(s.id)?.state !== 'running');

	let at = $state('');
	const n = $derived(
		Math.max(
			0,
			order.findIndex((s) => s.id === at)
		)
	);
	const step = $derived(order[n]);
	const layer = $derived(view.layers.find((l) => l.id === step?.layer));
	const part = $derived(step?.layer ? undefined : session.partOf(step?.item));
	const plug = $derived(step && plugAt(view.layers, step));
	const was = $derived(step && session.tick(step.id));
	const off = $derived(view.off.filter((o) => !o.lead).map((o) => o.layer));
	const tickable = $derived(
		!session.closed && !view.status.stops && step && !step.test && !step.held
	);
	let times = $state.raw<BenchView>();
	const takes = $derived(times?.steps.find((s) => s.step === step?.id)?.says);

	/** The ends of the serial numbers of what the step erases. */
	let ends = $state('');
	const timer = new Timer();
	let head = $state<HTMLElement>();
	let screwOpen = $state(false);
	let differsOpen = $state(false);
	let stuckOpen = $state(false);
	let colleagueOpen = $state(false);
	let strip = $state(false);

	function show(id: string | undefined) {
		if (!id || id === at) return;
		at = id;
		ends = '';
		timer.reset();
		void tick().then(() => head?.focus());
	}
	const go = (by: number) => show(order[Math.min(order.length - 1, Math.max(0, n + by))]?.id);

	/** Done, and on to the next: one that is done already is only passed. */
	async function next() {
		if (!step) return;
		const here = step.id;
		if (!was && tickable) {
			const seconds = timer.seconds || undefined;
			const taken = session.change({
				do: 'tick',
				step: here,
				seconds,
				...(step.confirm && { text: ends })
			});
			await session.held();
			if (!(await taken) || at !== here) return;
		}
		await tick();
		const i = order.findIndex((s) => s.id === here);
		show(order.slice(i + 1).find((s) => !done(s.id))?.id ?? order[i + 1]?.id);
	}

	const typing = (t: EventTarget | null) =>
		t instanceof HTMLElement && t.closest('input, textarea, select, [role=radiogroup]') !== null;
	function key(e: KeyboardEvent) {
		if (
			e.ctrlKey ||
			e.metaKey ||
			e.altKey ||
			document.querySelector('dialog[open]') ||
			typing(e.target)
		)
			return;
		const pressed = e.target instanceof HTMLElement && e.target.closest('a, button');
		if (e.repeat) return;
		switch (e.key) {
			case 'Enter': // no key that scrolls says that something was done
				if (pressed) return;
				e.preventDefault();
				void next();
				return;
			case 'ArrowRight':
			case 'ArrowLeft':
				e.preventDefault();
				go(e.key === 'ArrowLeft' ? -1 : 1);
		}
	}
	onMount(() => {
		show(firstOpen()?.id ?? order.at(-1)?.id);
		const stop = timer.start();
		const silent = on(window, 'keydown', key);
		void ask.bench(session.job.id).then((b) => (times = b));
		return () => {
			stop();
			silent();
		};
	});
	$effect(() => {
		const s = step;
		untrack(
			() => s && speech.say([s.do, ...s.cautions.map((c) => `${c.topic}: ${c.says}`), ...s.how])
		);
	});
	// The step at hand has gone with a change of plan.
	$effect(() => {
		if (at && !order.some((s) => s.id === at)) untrack(() => show(firstOpen()?.id));
	});
</script>

{#if !step}
	<section class="grid max-w-xl gap-3 py-10">
		<h1>Nothing to do yet</h1>
		<p>
			The plan is the machine as it was found. <a
				class="underline"
				href={resolve('/jobs/[id]/fit', { id: session.job.id })}>Plan it in Fit</a
			>.
		</p>
	</section>
{:else}
	<div
		class="grid min-h-[calc(100dvh-5rem)] grid-rows-[auto_1fr_auto] gap-2"
		data-testid="step"
		data-at={step.id}
	>
		<header class="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line pb-1">
			<p class="tabular-nums">
				<span class="font-semibold">{n + 1}</span> of {order.length} · {step.phase}
			</p>
			<progress
				class="h-3 min-w-24 flex-1 appearance-none border border-ink bg-raised [&::-moz-progress-bar]:bg-water-5 [&::-webkit-progress-bar]:bg-raised [&::-webkit-progress-value]:bg-water-5"
				max={order.length}
				value={view.status.done}
				aria-label="Steps done"
			></progress>
			<p class="text-soft max-sm:hidden">{times?.says ?? ''}</p>
			<Quiet onclick={() => (timer.paused = !timer.paused)}>
				<span class="tabular-nums">{timer.written}</span>
				{timer.paused ? 'stands: go on' : 'called away'}
			</Quiet>
			{#if speech.can}
				<Quiet aria-pressed={speech.on} onclick={() => speech.switch(!speech.on)}
					>{speech.on ? 'Spoken' : 'Silent'}</Quiet
				>
			{/if}
			<Quiet onclick={() => (colleagueOpen = true)}>To a colleague</Quiet>
			<a
				class="flex min-h-11 items-center underline"
				href={resolve('/jobs/[id]/order', { id: session.job.id })}
				{@attach shortcut('order')}>Whole order</a
			>
		</header>

		<div class="grid gap-4 lg:grid-cols-[minmax(0,5fr)_minmax(0,6fr)_17rem]">
			<section class="grid content-start gap-3" aria-label="Step">
				{#if view.status.stops}
					<p role="alert" class="border-l-4 border-over bg-overtint px-3 py-2">
						The plan is stopped: {view.status.verdict.why}.
						<a class="underline" href={resolve('/jobs/[id]/fit', { id: session.job.id })}
							>Fix it in Fit</a
						>
					</p>
				{/if}
				<h1
					bind:this={head}
					tabindex="-1"
					class="text-3xl leading-tight font-semibold text-balance outline-none lg:text-4xl"
				>
					{step.do}
				</h1>
				{#each step.cautions as c, i (i)}
					<p class="border-l-4 border-over bg-overtint px-3 py-2 text-2xl leading-8">
						<strong class="text-over">{c.topic}.</strong>
						{c.says}
					</p>
				{/each}
				<ol class="grid gap-1.5 text-2xl leading-8">
					{#each step.how as h, i (i)}
						<li class="grid grid-cols-[1.6rem_1fr]">
							<span class="text-soft" aria-hidden="true">{i + 1}</span><span>{h}</span>
						</li>
					{/each}
				</ol>
				<p class="flex flex-wrap gap-2">
					{#each step.tools as t, i (i)}<span class="border border-ink px-2 py-0.5 text-xl"
							>{t}</span
						>{/each}
					{#if takes}<span class="py-0.5 text-soft">{takes}</span>{/if}
				</p>
				{#if step.see}
					<p class="border-2 border-ink px-3 py-1.5 text-xl" data-testid="see">
						<strong>See:</strong>
						{step.see}
					</p>
				{/if}
				{#if step.held && !was}<Held {step} />{/if}
				{#if step.confirm && !was && tickable}
					<Ends
						asks={step.asks ?? []}
						what={step.do}
						bind:value={ends}
						onenter={() => void next()}
					/>
				{/if}
				{#if step.test}<TestState {step} onchange={(c) => session.change(c)} />{/if}
				{#if was}
					<p class="flex items-center gap-2 text-soft">
						<Mark grade={was.reason ? 'notes' : 'good'} />
						{was.reason ? `left out: ${was.reason}` : 'done'} by {was.by}, {when(was.at)}
						{#if !session.closed}
							<Quiet onclick={() => session.change({ do: 'untick', step: step.id })}
								>Not done after all</Quiet
							>
						{/if}
					</p>
				{/if}
			</section>
			<section
				class="grid min-h-72 grid-rows-[1fr_auto] gap-2 lg:max-h-[calc(100dvh-13rem)]"
				aria-label="Where"
			>
				<div class="min-h-0">
					<Picture
						sheet={session.job.sheet}
						layers={view.layers}
						{step}
						{off}
						long={m2Of(part)?.lengthMM}
					/>
				</div>
				{#if plug}
					<div><Plug {plug} on={Boolean(step.shuts)} /></div>
				{:else if part}
					<div>
						<Motion
							{part}
							socket={socketAt(session.job.sheet, step)}
							out={step.phase === 'take out'}
						/>
					</div>
				{/if}
			</section>
			<aside class="max-lg:hidden"><Aside {step} /></aside>
			{#if strip}<aside class="lg:hidden"><Aside {step} /></aside>{/if}
		</div>

		<footer
			class="sticky bottom-0 z-10 flex flex-wrap items-stretch gap-2 border-t-2 border-ink bg-paper py-2"
		>
			<Button
				color="alternative"
				class="min-h-14 min-w-14 text-xl"
				disabled={n === 0}
				onclick={() => go(-1)}
				aria-label="Back one step">‹</Button
			>
			<Button
				data-next
				class="min-h-14 flex-1 text-2xl"
				disabled={!was && !tickable && !step.test}
				onclick={next}
			>
				{was || step.test ? 'Next' : n === order.length - 1 ? 'Done' : 'Done, next'} ›
			</Button>
			<span class="flex flex-wrap gap-2 max-sm:grid max-sm:w-full max-sm:grid-cols-2">
				<Button
					color="alternative"
					class="min-h-11 sm:min-h-14"
					onclick={() => (differsOpen = true)}
					disabled={session.closed}>It differs here</Button
				>
				<Button
					color="alternative"
					class="min-h-11 sm:min-h-14"
					onclick={() => (stuckOpen = true)}
					disabled={session.closed}>It does not go</Button
				>
				<Button
					color="alternative"
					class="min-h-11 sm:min-h-14"
					onclick={() => (screwOpen = true)}
					disabled={session.closed}>A screw…</Button
				>
				<Button
					color="alternative"
					class="min-h-11 sm:min-h-14 lg:hidden"
					aria-expanded={strip}
					onclick={() => (strip = !strip)}>Tray</Button
				>
			</span>
		</footer>
	</div>
	<Later bind:open={screwOpen} load={() => import('./ScrewDialog.svelte')} also={{ step, layer }} />
	<Later
		bind:open={differsOpen}
		load={() => import('./DiffersDialog.svelte')}
		also={{ step, layer: session.job.sheet.layers?.find((l) => l.id === step.layer) }}
	/>
	<Later
		bind:open={stuckOpen}
		load={() => import('./StuckDialog.svelte')}
		also={{
			step,
			layer: step.lead || step.shuts ? undefined : layer,
			onscrew: () => (screwOpen = true)
		}}
	/>
	<Later bind:open={colleagueOpen} load={() => import('./Colleague.svelte')} />
{/if}
