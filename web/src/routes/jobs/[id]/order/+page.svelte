<script lang="ts">
	import { resolve } from '$app/paths';
	import { Button } from 'flowbite-svelte';
	import { onMount, tick } from 'svelte';
	import type { Change, Step } from '$lib/api/types.gen';
	import Phases from '$lib/job/Phases.svelte';
	import { useSession } from '$lib/job/session.svelte';
	import StepRow from '$lib/job/StepRow.svelte';
	import { shortcut } from '$lib/ui/commands.svelte';
	import Fetched from '$lib/ui/Fetched.svelte';
	import Mark from '$lib/ui/Mark.svelte';

	const get = useSession();
	const session = $derived(get());
	const order = $derived(session.view.order);
	const done = (s: Step) => session.tick(s.id) !== undefined;
	const next = $derived(order.find((s) => !done(s) && session.test(s.id)?.state !== 'running'));
	/** What can be ticked together: tests are told one by one. */
	const left = (steps: readonly Step[]) =>
		steps
			.filter((s) => !done(s) && !s.test && !s.confirm && !s.held && s.phase !== 'power down')
			.map((s) => s.id);
	const phases = $derived(
		order.reduce<{ id: string; phase: Step['phase']; steps: Step[] }[]>((all, s) => {
			if (all.at(-1)?.phase !== s.phase) {
				const again = all.filter((p) => p.phase === s.phase).length; // taken out in between
				all.push({ id: again ? `${s.phase} ${again + 1}` : s.phase, phase: s.phase, steps: [] });
			}
			all.at(-1)?.steps.push(s);
			return all;
		}, [])
	);
	const proveFirst = $derived(
		next?.phase === 'close' && session.view.lines.some((l) => l.verdict === 'not looked at')
	);

	/** Brings a step into sight: its beginning, where it is longer than the screen. */
	function show(id: string | undefined, block: ScrollLogicalPosition) {
		const step = id && document.querySelector(`[data-step="${CSS.escape(id)}"]`);
		if (!step) return;
		const long = step.getBoundingClientRect().height > window.innerHeight * 0.7;
		step.scrollIntoView({ block: long ? 'start' : block });
	}

	// The next step comes into view when the page opens and when one is ticked.
	onMount(() => {
		if (session.view.status.done > 0) show(next?.id, 'center');
	});
	async function onchange(change: Change): Promise<boolean> {
		const taken = session.change(change);
		await session.held();
		await tick();
		show(next?.id, 'nearest');
		return taken;
	}
</script>

<svelte:head><title>Work order: {session.job.title} · Deep Bay</title></svelte:head>

{#if session.view.status.stops}
	<div role="alert" class="my-3 flex gap-3 border-l-4 border-over bg-overtint p-4">
		<Mark grade="stops" />
		<p>
			The plan is stopped, and nothing can be ticked: {session.view.status.verdict.why}.
			<a class="underline" href={resolve('/jobs/[id]/fit', { id: session.job.id })}>Fix it in Fit</a
			>
		</p>
	</div>
{/if}

{#if order.length === 0}
	<section class="grid max-w-xl gap-3 py-10">
		<h2>Nothing to do yet</h2>
		<p>
			The plan is the machine as it was found. <a
				class="underline"
				href={resolve('/jobs/[id]/fit', { id: session.job.id })}
				>Put the new parts in place in Fit</a
			>, and the order writes itself.
		</p>
	</section>
{:else}
	<div class="grid gap-6 lg:grid-cols-[13rem_1fr]">
		<div class="no-print grid content-start gap-3 self-start lg:sticky lg:top-16">
			<Button
				href={resolve('/jobs/[id]/step', { id: session.job.id })}
				class="min-h-12 text-lg"
				{@attach shortcut('step')}>Step by step</Button
			>
			<Button color="alternative" href={resolve('/jobs/[id]/print', { id: session.job.id })}
				>On paper</Button
			>
			<Phases {phases} />
		</div>
		<div>
			<Fetched load={() => import('$lib/step/Before.svelte')} />
			{#each phases as p (p.id)}
				<section aria-labelledby="{p.id}-h" class="pb-5">
					<h2 id={p.id} class="border-b-2 border-ink pb-1 text-xl">
						<span id="{p.id}-h" class="block first-letter:uppercase">{p.phase}</span>
					</h2>
					{#if p.phase === 'close' && proveFirst}
						<p class="my-2 bg-water-1 p-3">
							The screens have not all been read yet.
							<a class="underline" href={resolve('/jobs/[id]/prove', { id: session.job.id })}
								>Compare them first</a
							>, while the machine is easy to go back into.
						</p>
					{/if}
					<ol>
						{#each p.steps as s (s.id)}
							<StepRow step={s} next={s.id === next?.id} {onchange} />
						{/each}
					</ol>
					{#if left(p.steps).length > 1 && !session.closed && !session.view.status.stops}
						<Button
							class="no-print mt-3 ml-14"
							color="alternative"
							aria-label="All {left(p.steps).length} done: {p.phase}"
							onclick={() => onchange({ do: 'tick', steps: left(p.steps) })}
							>All {left(p.steps).length} done</Button
						>
					{/if}
				</section>
			{/each}
		</div>
	</div>
{/if}
