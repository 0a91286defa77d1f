<script lang="ts">
	// The machine at one step: its board to scale, the place lit, the layer that moves, its
	// fasteners as they lie, its leads, and arrows for the way things move.
	import ArrowHead from './ArrowHead.svelte';
	import type { Layer, Sheet, Step } from '$lib/api/types.gen';
	import Sketch from '$lib/chart/Sketch.svelte';
	import Screwhead from './Screwhead.svelte';
	import { boxOf, labelled, laid, socketAt, view, WAY } from './geometry';

	interface Props {
		sheet: Sheet;
		layers: readonly Layer[];
		step: Step;
		/** Layers that are off. */
		off: readonly string[];
		/** The length of the card that goes in or comes out, where it is one. */
		long?: number | undefined;
	}
	let { sheet, layers, step, off, long }: Props = $props();
	const uid = $props.id(); // several drawings stand on one page

	const layer = $derived(layers.find((l) => l.id === step.layer));
	const lead = $derived(step.lead ? layer?.leads?.[step.lead - 1] : undefined);
	const lit = $derived(step.layer ? undefined : socketAt(sheet, step));
	const whole = $derived(!step.lead);
	const box = $derived(view(sheet, layer ?? undefined));
	const size = $derived(Math.max(box.w, box.h));
	const u = $derived(size / 100); // a hundredth of the drawing
	const card = $derived(lit && laid(lit, u * 2.4));
	const here = $derived(layer?.outline && boxOf(layer.outline));
	const shut = $derived(
		layers.filter(
			(l) =>
				l.id !== step.layer &&
				!off.includes(l.id) &&
				l.outline &&
				!l.all &&
				l.kind !== 'cover' &&
				l.kind !== 'foot' &&
				(!lit || !l.hides?.includes(lit.id))
		)
	);
	// The way it moves across the board; up and down is a mark of its own.
	const moves = $derived(
		(layer?.moves ?? []).map((m) => ({
			...m,
			way: WAY[m.toward ?? 'top'].map((n) => n * (step.shuts ? -1 : 1)) as [number, number]
		}))
	);
	const says = $derived(
		[
			layer ? layer.name : (lit?.id ?? ''),
			lead ? lead.for : '',
			(lead ? lead.where : layer ? layer.where : lit?.where) ?? ''
		]
			.filter(Boolean)
			.join(', ')
	);
	const middle = $derived(here ? { x: here.x + here.w / 2, y: here.y + here.h / 2 } : undefined);
	const marks = $derived(
		whole && layer
			? (layer.fasteners ?? []).flatMap((f, i) =>
					(f.at ?? []).map((p, n) => ({ f, i, p, first: n === 0 }))
				)
			: []
	);
	const spot = (x: number, y: number, r: number) => ({ x: x - r, y: y - r, w: 2 * r, h: 2 * r });
	/** What each kind of fastener is, beside the first of it, clear of marks and arrows. */
	const names = $derived.by(() => {
		const first = marks.filter((m) => m.first);
		const texts = first.map(
			(m) =>
				[m.f.thread, m.f.lengthMM && `${m.f.lengthMM} mm`].filter(Boolean).join(' × ') +
				(m.f.captive === true ? ', stays' : '')
		);
		const taken = [
			...marks.map((m) => spot(m.p.xMM, m.p.yMM, u * 2.6)),
			...(layer?.catches ?? []).flatMap((c) =>
				(c.at ?? []).map((p) => spot(p.xMM, p.yMM, u * 2.6))
			),
			...(middle
				? moves.map((_, i) => ({
						x: middle.x - u * 13,
						y: middle.y + (i - (moves.length - 1) / 2) * u * 11 - u * 5,
						w: u * 36,
						h: u * 9
					}))
				: [])
		];
		const at = labelled(
			first.map((m, n) => ({ text: texts[n]!, x: m.p.xMM, y: m.p.yMM })),
			taken,
			box,
			u * 3.8
		);
		return Object.fromEntries(first.map((m, n) => [m.i, { ...at[n]!, text: texts[n]! }]));
	});
</script>

<Sketch
	{sheet}
	line={u * 0.5}
	socketLine={u * 0.35}
	corner={u}
	tint={() => 'fill-none stroke-soft'}
	viewBox="{box.x} {box.y} {box.w} {box.h}"
	class="size-full"
	role="img"
	aria-label="{step.do}: {says || 'the board'}"
>
	<defs>
		<ArrowHead id="{uid}way" size={3.4} />
		<pattern
			id="{uid}over"
			width={u * 2.4}
			height={u * 2.4}
			patternUnits="userSpaceOnUse"
			patternTransform="rotate(45)"
		>
			<path d="M0 0V{u * 2.4}" class="stroke-water-4" stroke-width={u * 0.5} />
		</pattern>
	</defs>
	{#if lit}
		<rect
			x={lit.place.xMM}
			y={lit.place.yMM}
			width={lit.place.widthMM}
			height={lit.place.heightMM}
			class="fill-overtint stroke-over"
			stroke-width={u}
		/>
	{/if}
	{#each shut as l (l.id)}
		<rect
			x={l.outline!.xMM}
			y={l.outline!.yMM}
			width={l.outline!.widthMM}
			height={l.outline!.heightMM}
			rx={u}
			class="fill-water-1 stroke-water-6"
			fill-opacity="0.55"
			stroke-width={u * 0.3}
			stroke-dasharray="{u * 1.2} {u * 0.8}"
		/>
	{/each}

	{#if here && layer}
		<!-- The layer that moves: lifted off its shadow, or let down onto it. -->
		{@const lift = whole ? u * 2.2 : 0}
		<rect
			x={here.x}
			y={here.y}
			width={here.w}
			height={here.h}
			rx={u}
			class="fill-none stroke-soft"
			stroke-width={u * 0.35}
			stroke-dasharray="{u} {u}"
		/>
		<rect
			x={here.x - lift}
			y={here.y - lift}
			width={here.w}
			height={here.h}
			rx={u}
			fill="url(#{uid}over)"
			class="stroke-water-6"
			stroke-width={u * 0.7}
		/>
	{/if}

	{#if whole && middle && here}
		{#each moves as m, i (i)}
			{@const far = Math.min(u * 26, Math.max(u * 12, (m.byMM ?? 0) * 1.2))}
			{@const y = middle.y + (i - (moves.length - 1) / 2) * u * 11}
			{#if m.way[0] !== 0 && m.how !== 'swing' && m.how !== 'tilt'}
				<path
					d="M{middle.x - (m.way[0] * far) / 2} {y}h{m.way[0] * far}"
					class="fill-none stroke-over"
					stroke-width={u * 1.3}
					marker-end="url(#{uid}way)"
				/>
				{#if m.byMM}<text
						x={middle.x}
						y={y - u * 2}
						text-anchor="middle"
						font-size={u * 4}
						class="fill-over">{m.byMM} mm</text
					>{/if}
			{:else if m.how === 'swing' || m.how === 'tilt'}
				{@const w = m.way[0] || (step.shuts ? -1 : 1)}
				<path
					d="M{middle.x - w * u * 7} {y + u * 3}q{w * u * 7} {-u * 11} {w * u * 14} {-u * 1}"
					class="fill-none stroke-over"
					stroke-width={u * 1.3}
					marker-end="url(#{uid}way)"
				/>
			{:else}
				<!-- Towards whoever looks, or away: an arrow's point or its feathers. -->
				{@const away = (m.toward === 'bottom') !== Boolean(step.shuts)}
				<circle cx={middle.x} cy={y} r={u * 3.4} class="fill-raised stroke-over" stroke-width={u} />
				{#if away}
					<path
						d="M{middle.x - u * 2.2} {y - u * 2.2}l{u * 4.4} {u * 4.4}m0 {-u * 4.4}l{-u * 4.4} {u *
							4.4}"
						class="stroke-over"
						stroke-width={u * 0.9}
					/>
				{:else}
					<circle cx={middle.x} cy={y} r={u * 1.1} class="fill-over" />
				{/if}
				<text x={middle.x + u * 5.4} y={y + u * 1.5} font-size={u * 4} class="fill-over"
					>{away ? 'down' : m.how === 'pull' ? 'straight up' : 'up'}</text
				>
			{/if}
		{/each}
	{/if}

	{#if whole && layer}
		{#each layer.catches ?? [] as c, i (i)}
			{#each c.at ?? [] as p, n (n)}
				{@const w = WAY[c.toward ?? 'top']}
				<path
					d="M{p.xMM - u * 2.4} {p.yMM + u * 2}h{u * 4.8}l{-u * 2.4} {-u * 4.2}Z"
					class="fill-overtint stroke-over"
					stroke-width={u * 0.6}
				/>
				{#if w[0] !== 0 && !step.shuts}
					<path
						d="M{p.xMM} {p.yMM}h{w[0] * u * 8}"
						class="stroke-over"
						stroke-width={u * 0.8}
						marker-end="url(#{uid}way)"
					/>
				{/if}
			{/each}
		{/each}
		{#each marks as m (`${m.i}-${m.p.xMM}-${m.p.yMM}`)}
			<Screwhead bit={m.f.bit} x={m.p.xMM} y={m.p.yMM} r={u * 2.5} captive={m.f.captive === true} />
			{#if m.first}
				<text
					x={names[m.i]!.x}
					y={names[m.i]!.y + u * 1.3}
					text-anchor="middle"
					font-size={u * 3.8}
					stroke-width={u}
					class="fill-over stroke-paper [paint-order:stroke]">{names[m.i]!.text}</text
				>
			{/if}
		{/each}
	{/if}

	{#if lead}
		{#each layer?.leads ?? [] as d, i (i)}
			{#if d.at && i !== (step.lead ?? 0) - 1}
				<rect
					x={d.at.xMM - u * 1.7}
					y={d.at.yMM - u * 1.1}
					width={u * 3.4}
					height={u * 2.2}
					class="fill-raised stroke-soft"
					stroke-width={u * 0.4}
				/>
			{/if}
		{/each}
	{/if}
	{#each layer?.leads ?? [] as d, i (i)}
		{#if d.at && (whole ? d.undone === 'lifting' && !step.shuts : i === (step.lead ?? 0) - 1)}
			{@const now = i === (step.lead ?? 0) - 1}
			{#if middle}
				<path
					d="M{d.at.xMM} {d.at.yMM}Q{(d.at.xMM + middle.x) / 2} {Math.min(d.at.yMM, middle.y) -
						u * 8} {middle.x} {middle.y}"
					class={['fill-none', now ? 'stroke-over' : 'stroke-ink']}
					stroke-width={now ? u * 0.9 : u * 0.5}
					stroke-dasharray={now ? undefined : `${u * 1.5} ${u}`}
				/>
			{/if}
			<rect
				x={d.at.xMM - u * 2.6}
				y={d.at.yMM - u * 1.7}
				width={u * 5.2}
				height={u * 3.4}
				class={now ? 'fill-overtint stroke-over' : 'fill-raised stroke-ink'}
				stroke-width={u * 0.7}
			/>
			{#if now}
				<circle
					cx={d.at.xMM}
					cy={d.at.yMM}
					r={u * 4.6}
					class="fill-none stroke-over"
					stroke-width={u * 0.8}
				/>
			{/if}
		{/if}
	{/each}

	{#if card}
		<!-- Where the contacts go in, and where the post stands for this length. -->
		<rect
			x={card.bar.x}
			y={card.bar.y}
			width={card.bar.w}
			height={card.bar.h}
			class="fill-land stroke-coast"
			stroke-width={u * 0.5}
		/>
		{#each card.posts as p (p.mm)}
			<circle
				cx={p.x}
				cy={p.y}
				r={u * (p.mm === long ? 2 : 1.3)}
				class={p.mm === long ? 'fill-over stroke-over' : 'fill-raised stroke-soft'}
				stroke-width={u * 0.5}
			/>
			{#if p.mm === long}
				<text
					x={p.x + card.way[0] * u * 3.2}
					y={p.y - u * 3 + (card.way[1] ? card.way[1] * u * 3 : 0)}
					text-anchor="middle"
					font-size={u * 3.6}
					class="fill-over">{p.mm}</text
				>
			{/if}
		{/each}
		{@const c = {
			x: lit!.place.xMM + lit!.place.widthMM / 2,
			y: lit!.place.yMM + lit!.place.heightMM / 2
		}}
		{@const to = step.phase === 'take out' ? -1 : 1}
		<path
			d="M{c.x - card.way[0] * u * 6 * to} {c.y - card.way[1] * u * 6 * to}l{card.way[0] *
				u *
				16 *
				to} {card.way[1] * u * 12 * to}"
			class="fill-none stroke-over"
			stroke-width={u * 1.3}
			marker-end="url(#{uid}way)"
		/>
	{/if}
	{#if lit}
		<path
			d="M{lit.place.xMM + lit.place.widthMM / 2} {box.y}V{lit.place.yMM}M{box.x} {lit.place.yMM +
				lit.place.heightMM / 2}H{lit.place.xMM}"
			class="fill-none stroke-over"
			stroke-width={u * 0.4}
			stroke-dasharray="{u * 1.6} {u}"
		/>
		<text
			x={Math.min(
				box.x + box.w - u * 2,
				Math.max(box.x + u * 2, lit.place.xMM + lit.place.widthMM / 2)
			)}
			y={lit.place.yMM + lit.place.heightMM + u * 5.4 > box.y + box.h
				? lit.place.yMM - u * 2
				: lit.place.yMM + lit.place.heightMM + u * 5.4}
			text-anchor="middle"
			font-size={u * 5}
			class="fill-over font-semibold">{lit.id}</text
		>
	{/if}
	<!-- Which way the board lies. -->
	<text x={box.x + u} y={box.y + box.h - u * 1.4} font-size={u * 3.4} class="fill-soft">rear</text>
	<text
		x={box.x + box.w - u}
		y={box.y + box.h - u * 1.4}
		text-anchor="end"
		font-size={u * 3.4}
		class="fill-soft">front</text
	>
</Sketch>
