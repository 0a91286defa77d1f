<script lang="ts">
	// What was in a machine from when to when, or in which machines a part was: a bar a stay on one
	// scale of time, jobs as lines across.
	import { scaleTime } from 'd3-scale';
	import type { LifeStay } from '$lib/api/types.gen';
	import { when } from '$lib/ui/text';

	interface Props {
		stays: readonly LifeStay[];
		/** Rows are named by their machine, not by their piece. */
		machines: boolean;
		now: number;
	}
	let { stays, machines, now }: Props = $props();
	let wide = $state(900);
	const names = $derived(wide < 560 ? 130 : 250);
	const ROW = 40;
	const first = $derived(Math.min(...stays.map((s) => Date.parse(s.from))));
	const x = $derived(
		scaleTime()
			.domain([first, Math.max(now, first + 86400e3)])
			.range([names, wide - 14])
	);
	const marks = $derived(
		[...new Set(stays.flatMap((s) => [s.from, s.to ?? '']).filter(Boolean))].map((t) =>
			x(Date.parse(t))
		)
	);
	const high = $derived(stays.length * ROW + 30);
	const place = (s: LifeStay) => {
		const from = x(Date.parse(s.from));
		return { from, wide: Math.max(4, x(s.to ? Date.parse(s.to) : now) - from) };
	};
	const cut = (t: string) => (t.length > names / 8 ? t.slice(0, names / 8 - 1) + '…' : t);
</script>

<div bind:clientWidth={wide} class="min-w-0" data-testid="stays">
	<svg width={wide} height={high} viewBox="0 0 {wide} {high}" aria-hidden="true">
		{#each x.ticks(Math.max(2, (wide - names) / 130)) as t, i (i)}
			<line x1={x(t)} x2={x(t)} y1="0" y2={high - 24} class="stroke-line" />
			<text x={x(t)} y={high - 8} text-anchor="middle" class="fill-soft text-[12px]"
				>{x.tickFormat()(t)}</text
			>
		{/each}
		{#each marks as m, i (i)}
			<line
				x1={m}
				x2={m}
				y1="0"
				y2={high - 24}
				class="stroke-over"
				stroke-dasharray="2 3"
				stroke-width="1"
			/>
		{/each}
		{#each stays as s, i (i)}
			{@const p = place(s)}
			{@const y = i * ROW + 6}
			<text x="0" y={y + 13} class="fill-ink text-[14px]">{cut(machines ? s.title : s.name)}</text>
			<text x="0" y={y + 29} class="fill-soft text-[12px]"
				>{cut(
					[s.place, machines ? (s.tag ?? '') : (s.serial ?? '')].filter(Boolean).join(' · ')
				)}</text
			>
			<rect
				x={p.from}
				y={y + 4}
				width={p.wide}
				height="20"
				class={s.to ? 'fill-land stroke-coast' : 'fill-water-2 stroke-water-5'}
				stroke-dasharray={s.lost ? '4 3' : undefined}
			/>
			{#if s.fitted}<path
					d="M{p.from} {y + 4}v20l7-10z"
					class={s.to ? 'fill-coast' : 'fill-water-6'}
				/>{/if}
		{/each}
	</svg>
	<ul class="sr-only">
		{#each stays as s, i (i)}
			<li>
				{s.name}
				{s.serial ?? ''}, {s.title}
				{s.place}: from {when(s.from)}
				{s.to ? `to ${when(s.to)}` : ''}; {s.says}
			</li>
		{/each}
	</ul>
	<p class="flex flex-wrap gap-x-5 text-soft">
		<span><b class="inline-block size-3 border border-water-5 bg-water-2"></b> there now</span>
		<span><b class="inline-block size-3 border border-coast bg-land"></b> no longer</span>
		<span>▸ fitted here; without it, found there</span>
		{#if stays.some((s) => s.lost)}<span
				>broken line: not found at the next job, and no job tells of it</span
			>{/if}
	</p>
</div>
