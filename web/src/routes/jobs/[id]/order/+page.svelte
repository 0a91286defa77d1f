<script lang="ts">
	import { afterNavigate } from '$app/navigation';
	import { resolve } from '$app/paths';
	import type { Step } from '$lib/api/types.gen';
	import Locator from '$lib/chart/Locator.svelte';
	import { useSession } from '$lib/job/session.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { when } from '$lib/ui/text';

	const get = useSession();
	const session = $derived(get());
	const done = $derived(new Map(session.job.done.map((t) => [t.step, t])));
	const order = $derived(session.view.order);
	const next = $derived(order.find((s) => !done.has(s.id)));
	const phases = $derived(
		order.reduce<{ phase: Step['phase']; steps: Step[] }[]>((all, s) => {
			if (all.at(-1)?.phase !== s.phase) all.push({ phase: s.phase, steps: [] });
			all.at(-1)?.steps.push(s);
			return all;
		}, [])
	);
	const proveFirst = $derived(
		next?.phase === 'close' && session.view.lines.some((l) => l.verdict === 'not looked at')
	);

	const show = (id: string | undefined, block: ScrollLogicalPosition) =>
		id && document.querySelector(`[data-step="${CSS.escape(id)}"]`)?.scrollIntoView({ block });

	// The next step comes into view when the page opens and when one is ticked.
	afterNavigate(() => {
		if (session.view.status.done > 0) show(next?.id, 'center');
	});
	async function tick(step: string, box: HTMLInputElement) {
		await session.change({ do: box.checked ? 'tick' : 'untick', step });
		box.checked = session.job.done.some((t) => t.step === step);
		show(next?.id, 'nearest');
	}
</script>

<svelte:head><title>Work order: {session.job.title} · Deep Bay</title></svelte:head>

{#if session.view.status.stops}
	<div role="alert" class="my-3 flex gap-3 border-l-4 border-over bg-overtint p-4">
		<Mark grade="stops" />
		<p>
			The plan is stopped, and nothing can be ticked: {session.view.planned.findings.find(
				(f) => f.severity === 'stops'
			)?.says}.
			<a class="underline" href={resolve('/jobs/[id]/fit', { id: session.job.id })}
				>Cure it in Fit</a
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
		<nav aria-label="Phases" class="no-print top-2 content-start self-start lg:sticky">
			<p class="pb-1 text-soft" data-testid="progress">
				{session.view.status.done} of {session.view.status.steps} steps done
			</p>
			<ul>
				{#each phases as p (p.phase)}
					{@const n = p.steps.filter((s) => done.has(s.id)).length}
					<li>
						<a href="#{p.phase}" class="flex min-h-11 items-center gap-2 px-1 hover:bg-water-1">
							<Mark
								grade={n === p.steps.length ? 'good' : 'open'}
								size={18}
								label="{n} of {p.steps.length}"
							/>
							<span class="block grow first-letter:uppercase">{p.phase}</span>
							<span class="text-soft">{n}/{p.steps.length}</span>
						</a>
					</li>
				{/each}
			</ul>
		</nav>
		<div>
			{#each phases as p (p.phase)}
				<section aria-labelledby="{p.phase}-h" class="pb-5">
					<h2 id={p.phase} class="border-b-2 border-ink pb-1 text-xl">
						<span id="{p.phase}-h" class="block first-letter:uppercase">{p.phase}</span>
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
							{@const mark = done.get(s.id)}
							<li
								class={['border-b border-line py-3', s.id === next?.id && 'bg-water-1']}
								data-step={s.id}
							>
								{#each mark ? [] : s.cautions as c (c.topic)}
									<p class="mb-2 ml-14 border-l-4 border-over bg-overtint px-3 py-2 text-2xl">
										<strong class="text-over">{c.topic}.</strong>
										{c.says}
									</p>
								{/each}
								<label class="grid min-h-12 cursor-pointer grid-cols-[3.5rem_1fr] items-start">
									<input
										type="checkbox"
										class="mt-0.5 ml-2 size-8 rounded-none border-2 border-ink bg-raised checked:bg-ink dark:bg-raised"
										checked={mark !== undefined}
										disabled={session.closed}
										onchange={(e) => tick(s.id, e.currentTarget)}
									/>
									<span class="text-2xl leading-9 font-semibold">{s.do}</span>
								</label>
								<div class="ml-14 grid gap-4 md:flex">
									{#if s.how.length > 0 && !mark}
										<ul class="list-disc pl-6 text-2xl">
											{#each s.how as h, i (i)}<li>{h}</li>{/each}
										</ul>
									{/if}
									{#if s.socket && !mark}
										<div class="w-48 shrink-0 md:ml-auto">
											<Locator sheet={session.job.sheet} socket={s.socket} />
										</div>
									{/if}
									{#if mark}
										<p class="text-soft">done by {mark.by}, {when(mark.at)}</p>
									{/if}
								</div>
							</li>
						{/each}
					</ol>
				</section>
			{/each}
		</div>
	</div>
{/if}
