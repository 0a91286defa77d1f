<script lang="ts">
	// The work order on paper: what to lay out, the layers, each step with its picture, the tray.
	// Nothing rests on colour, and no step is torn apart between two pages.
	import { resolve } from '$app/paths';
	import { Button } from 'flowbite-svelte';
	import { onMount } from 'svelte';
	import * as ask from '$lib/step/api';
	import type { BenchView } from '$lib/api/types.gen';
	import { useSession } from '$lib/job/session.svelte';
	import Exploded from '$lib/step/Exploded.svelte';
	import { m2Of, plugAt, socketAt } from '$lib/step/geometry';
	import Motion from '$lib/step/Motion.svelte';
	import Plug from '$lib/step/Plug.svelte';
	import PickList from '$lib/step/PickList.svelte';
	import Picture from '$lib/step/Picture.svelte';
	import Tray from '$lib/step/Tray.svelte';

	const get = useSession();
	const session = $derived(get());
	const view = $derived(session.view);
	let bench = $state.raw<BenchView>();
	onMount(() => {
		void ask.bench(session.job.id).then((b) => (bench = b));
	});
	/** What is off when a step is done, by the order alone. */
	const offAt = (n: number) => {
		const off: string[] = [];
		for (const s of view.order.slice(0, n)) {
			if (!s.layer || s.lead) continue;
			if (s.shuts) off.splice(off.indexOf(s.layer), 1);
			else off.push(s.layer);
		}
		return off;
	};
	const part = (item: string | undefined) => session.partOf(item);
</script>

<svelte:head><title>On paper: {session.job.title} · Deep Bay</title></svelte:head>

<div class="no-print flex flex-wrap items-center gap-4 py-2">
	<Button onclick={() => window.print()}>Print</Button>
	<a
		class="flex min-h-11 items-center underline"
		href={resolve('/jobs/[id]/order', { id: session.job.id })}>Work order</a
	>
</div>

<article class="paper mx-auto max-w-[190mm] bg-paper" data-testid="paper">
	<header class="border-b-2 border-ink pb-1">
		<h1 class="text-2xl">Work order: {session.job.title}</h1>
		<p>
			{[session.job.tag, session.job.sheet.name, session.job.owner, session.job.stands]
				.filter(Boolean)
				.join(' · ')}
		</p>
		{#if bench}<p>{bench.says}</p>{/if}
	</header>
	<section class="pt-3">
		<h2 class="text-xl">Lay out</h2>
		<PickList list={bench?.pick ?? view.pick} boxes />
	</section>
	{#if view.layers.length > 0}
		<section class="whole pt-3">
			<h2 class="text-xl">Layers</h2>
			<Exploded sheet={session.job.sheet} layers={view.layers} />
		</section>
	{/if}
	{#if view.tray.length > 0}
		<section class="whole pt-3">
			<h2 class="pb-1 text-xl">Tray</h2>
			<Tray cells={view.tray} back={() => false} />
		</section>
	{/if}
	<section class="pt-3">
		<h2 class="text-xl">Steps</h2>
		<ol>
			{#each view.order as s, n (s.id)}
				{@const plug = plugAt(view.layers, s)}
				<li
					class="whole grid grid-cols-[2rem_1fr_11rem] gap-3 border-t border-ink py-2"
					data-print-step
				>
					<p class="grid content-start justify-items-center gap-1">
						<span class="size-5 border-2 border-ink"></span>
						<span class="tabular-nums">{n + 1}</span>
					</p>
					<div>
						<h3 class="text-lg leading-snug font-semibold">{s.do}</h3>
						{#each s.cautions as c, i (i)}
							<p class="my-1 border-2 border-ink px-2 py-0.5">
								<strong>{c.topic}.</strong>
								{c.says}
							</p>
						{/each}
						<ul class="list-disc pl-5">
							{#each s.how as h, i (i)}<li>{h}</li>{/each}
						</ul>
						{#if s.see}<p><strong>See:</strong> {s.see}</p>{/if}
						{#if s.tools.length > 0}<p>With: {s.tools.join(', ')}</p>{/if}
					</div>
					<div>
						{#if s.layer || socketAt(session.job.sheet, s)}
							<div class="h-40">
								<Picture
									sheet={session.job.sheet}
									layers={view.layers}
									step={s}
									off={offAt(n)}
									long={m2Of(part(s.item))?.lengthMM}
								/>
							</div>
						{/if}
						{#if plug}
							<Plug {plug} on={Boolean(s.shuts)} />
						{:else if !s.layer && part(s.item) && (s.phase === 'fit' || s.phase === 'take out')}
							<Motion
								part={part(s.item)!}
								socket={socketAt(session.job.sheet, s)}
								out={s.phase === 'take out'}
							/>
						{/if}
					</div>
				</li>
			{/each}
		</ol>
	</section>
</article>

<style>
	.whole {
		break-inside: avoid;
	}
	h2 {
		break-after: avoid;
	}
	@media print {
		/* Ink on white: no shade carries a meaning of its own. */
		:global(:root:has(.paper)) {
			--paper: #fff;
			--raised: #fff;
			--land: #eee;
			--coast: #444;
			--ink: #000;
			--soft: #333;
			--line: #777;
			--over: #000;
			--overtint: #ddd;
			--water-1: #f4f4f4;
			--water-2: #e4e4e4;
			--water-4: #aaa;
			--water-5: #777;
			--water-6: #333;
			font-size: 13.5px;
		}
		.paper {
			max-width: none;
		}
	}
</style>
