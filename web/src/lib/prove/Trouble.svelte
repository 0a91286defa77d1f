<script lang="ts">
	// What is wrong: what agrees with all that was seen, the check that tells it apart, the cure.
	import { goto } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { Button, Input } from 'flowbite-svelte';
	import type { CheckWords, PossibleAnswer, Suspect, TroubleView } from '$lib/api/types.gen';
	import Locator from '$lib/chart/Locator.svelte';
	import { useSession } from '$lib/job/session.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import Quiet from '$lib/ui/Quiet.svelte';
	import type { Bench } from './bench.svelte';

	interface Props {
		view: TroubleView;
		bench: Bench;
	}
	let { view, bench }: Props = $props();
	const uid = $props.id();
	const get = useSession();
	const session = $derived(get());
	const t = $derived(view.trouble);
	const next = $derived(t.next);
	const place = $derived(t.leaders[0]?.faults[0]?.socket);
	let typed = $state('');

	const minutes = (m: number) =>
		m < 1 ? `${String(Math.round(m * 60))} s` : `${String(Math.round(m))} min`;
	const way = (s: Suspect) =>
		s.inside ? `machine open, ${minutes(s.minutes)} at the place` : minutes(s.minutes);

	async function answer(n: CheckWords, a: PossibleAnswer) {
		if (n.line) await session.change({ do: 'read', line: n.line, text: a.says });
		else await session.change({ do: 'check', check: { check: n.check, is: a.is ?? 'unclear' } });
	}
	const unclear = (n: CheckWords) =>
		session.change({ do: 'check', check: { check: n.check, is: 'unclear' } });
	async function read(e: SubmitEvent, line: string) {
		e.preventDefault();
		if (await session.change({ do: 'read', line, text: typed })) typed = '';
	}
	/** The simulated machine makes the check. */
	async function byBench(n: CheckWords) {
		if (n.line) {
			if (!bench.view?.on) await bench.do({ do: 'start' });
			const l = bench.view?.screens.find((s) => s.line === n.line);
			if (l)
				await session.change({
					do: 'observe',
					observation: { format: 'deepbay/observation', version: 1, readings: [l.reading] }
				});
			return;
		}
		await bench.do({ do: 'check', check: n.check });
		const is = bench.view?.is;
		if (is) await session.change({ do: 'check', check: { check: n.check, is } });
	}
	async function cure(s: Suspect) {
		if (await session.change({ do: 'cure', value: s.fault }))
			await goto(resolve('/jobs/[id]/step', { id: session.job.id }));
	}
</script>

<section class="mb-3 border-2 border-over px-4 py-3" aria-labelledby="{uid}h" data-testid="trouble">
	<h2 id="{uid}h" class="text-xl">What is wrong</h2>
	<p role="status" data-testid="stand">{t.says}</p>
	{#if t.danger}
		<p class="my-2 flex gap-2 border-l-4 border-over bg-overtint p-3 font-semibold" role="alert">
			<Mark grade="stops" />
			{t.danger}
		</p>
	{/if}
	<div class="grid gap-x-8 gap-y-4 pt-2 lg:grid-cols-2">
		<ol class="grid content-start gap-3" aria-label="Explanations, the likeliest first">
			{#each t.leaders as l, i (l.faults.map((f) => f.fault).join())}
				<li class="border-t border-line pt-2" data-testid="leader">
					<div class="flex items-baseline gap-3">
						<span class="w-16 shrink-0 text-right text-xl font-semibold whitespace-nowrap"
							>{l.percent} %</span
						>
						<div class="min-w-0 flex-1">
							<div class="h-1.5 bg-water-1" aria-hidden="true">
								<div class="h-full bg-ink" style:width="{Math.max(l.percent, 1)}%"></div>
							</div>
							{#each l.faults as f, n (f.fault)}
								<h3 class="pt-1 text-lg font-semibold first-letter:uppercase">
									{n > 0 ? 'and ' : ''}{f.says}
								</h3>
								{#if f.normal}<p class="text-soft">It only looks like a fault.</p>{/if}
								{#if t.certain || !next}
									<p>{f.cure}</p>
									{#if f.caution}
										<p class="mt-1 border-l-4 border-over pl-3">{f.caution}</p>
									{/if}
									{#if !session.closed}
										<div class="flex flex-wrap items-center gap-3 py-2">
											<Button color={i === 0 ? 'primary' : 'alternative'} onclick={() => cure(f)}
												>Put it right</Button
											>
											<span class="text-soft">{way(f)}</span>
										</div>
									{/if}
								{/if}
							{/each}
							<details>
								<summary class="min-h-11 cursor-pointer py-2.5 text-soft">
									{l.for.length === 1 ? 'one sign for it' : `${String(l.for.length)} signs for it`}
								</summary>
								<ul class="list-disc pl-5">
									{#each l.for as s, i (i)}<li>{s}</li>{/each}
								</ul>
								{#if l.open.length > 0}
									<p class="pt-1">It would show besides, where nobody looked yet:</p>
									<ul class="list-disc pl-5">
										{#each l.open as s, i (i)}<li>{s}</li>{/each}
									</ul>
								{/if}
							</details>
						</div>
					</div>
				</li>
			{:else}
				{#if t.differs.length > 0}
					<li>
						<p>What differs:</p>
						<ul class="list-disc pl-5">
							{#each t.differs as s, i (i)}<li>{s}</li>{/each}
						</ul>
					</li>
				{/if}
			{/each}
			{#if t.more > 0}<li class="text-soft">and {t.more} less likely</li>{/if}
		</ol>
		<div class="grid content-start gap-3 max-lg:order-first">
			{#if next && !session.closed}
				<div class="bg-water-1 p-4" data-testid="next">
					<h3 class="text-soft">
						Check next · {minutes(next.minutes)}{next.inside ? ', with the machine opened' : ''}
					</h3>
					<p class="text-lg font-semibold">{next.does}</p>
					{#if next.socket}
						<div class="max-w-72 py-2">
							<Locator sheet={session.job.sheet} socket={next.socket} />
						</div>
					{/if}
					<div class="grid gap-2">
						{#each next.answers as a, i (i)}
							<Button
								color="alternative"
								class="h-auto justify-start"
								onclick={() => answer(next, a)}
							>
								<span class="grid text-left whitespace-normal">
									<span class="font-semibold">{a.says}</span>
									{#if a.leaves}<span class="text-soft">then likeliest: {a.leaves}</span>{/if}
								</span>
							</Button>
						{/each}
						<div class="flex flex-wrap items-center gap-3">
							{#if next.line}
								<form class="flex gap-2" onsubmit={(e) => read(e, next.line ?? '')}>
									<div class="w-44">
										<Input
											bind:value={typed}
											aria-label="What it shows instead"
											placeholder="or: it shows…"
											required
											maxlength={80}
											autocomplete="off"
										/>
									</div>
									<Button type="submit" color="alternative">Save</Button>
								</form>
							{:else}
								<Quiet onclick={() => unclear(next)}>Cannot tell</Quiet>
							{/if}
							{#if bench.view?.there}
								<Quiet onclick={() => byBench(next)}>Let the simulated machine answer</Quiet>
							{/if}
						</div>
					</div>
				</div>
			{/if}
			{#if place && !next}
				<figure class="max-w-72">
					<Locator sheet={session.job.sheet} socket={place} />
					<figcaption class="text-soft">{place}</figcaption>
				</figure>
			{/if}
			{#if view.checked.length > 0}
				<details>
					<summary class="min-h-11 cursor-pointer py-2.5"
						>{view.checked.length === 1
							? 'One check was made'
							: `${String(view.checked.length)} checks were made`}</summary
					>
					<ul>
						{#each view.checked as c (c.check)}
							<li class="flex flex-wrap items-center gap-x-3 border-t border-line py-1">
								<span class="min-w-0 flex-1">{c.says}: <strong>{c.is}</strong></span>
								{#if !session.closed}<Quiet
										aria-label="Take back: {c.says}"
										onclick={() => session.change({ do: 'uncheck', value: c.check })}
										>Take back</Quiet
									>{/if}
							</li>
						{/each}
					</ul>
				</details>
			{/if}
			{#if t.out.length > 0}
				<details>
					<summary class="min-h-11 cursor-pointer py-2.5">Ruled out: {t.out.length}</summary>
					<ul>
						{#each t.out as o, i (i)}
							<li class="border-t border-line py-1 first-letter:uppercase">
								{o.says}<br /><span class="text-soft">{o.by}</span>
							</li>
						{/each}
					</ul>
				</details>
			{/if}
		</div>
	</div>
</section>
