<script lang="ts">
	// The runs of one thing before and after on one scale: a dot a run, a box from quartile to
	// quartile, a bar at the median; of a sound the room too; a line where the path ends.
	import { scaleLinear } from 'd3-scale';
	import { symbol, symbolCircle, symbolDiamond } from 'd3-shape';
	import type { Gained } from '$lib/api/types.gen';

	let { gained }: { gained: Gained } = $props();
	let wide = $state(640);
	const LEFT = 62;
	const ROW = 34;
	const rows = $derived(
		gained.sides.flatMap((s) => [
			{ key: s.when, name: s.when, runs: s.runs, side: s, room: false },
			...(s.background?.length
				? [{ key: s.when + '-room', name: 'room', runs: s.background, side: s, room: true }]
				: [])
		])
	);
	const all = $derived(rows.flatMap((r) => r.runs).concat(gained.allows ? [gained.allows] : []));
	// Levels and temperatures have no zero that means anything; rates and times do.
	const low = $derived(gained.unit === 'MB/s' || gained.unit === 's' ? 0 : Math.min(...all) - 3);
	const x = $derived(
		scaleLinear()
			.domain([low, Math.max(...all)])
			.nice(4)
			.range([LEFT, wide - 70])
	);
	const high = $derived(rows.length * ROW + 26);
	const dot = symbol(symbolCircle, 30)() ?? '';
	const diamond = symbol(symbolDiamond, 44)() ?? '';
</script>

<div bind:clientWidth={wide} class="max-w-2xl min-w-0">
	<svg
		width={wide}
		height={high}
		viewBox="0 0 {wide} {high}"
		role="img"
		aria-label="{gained.what}: {gained.sides.map((s) => `${s.when} ${s.says}`).join(', ')}"
	>
		{#each x.ticks(Math.max(2, wide / 100)) as t (t)}
			<line x1={x(t)} x2={x(t)} y1="4" y2={high - 22} class="stroke-line" />
			<text x={x(t)} y={high - 6} text-anchor="middle" class="fill-soft text-[12px]"
				>{t.toLocaleString('en')}</text
			>
		{/each}
		<text x={LEFT - 10} y={high - 6} text-anchor="end" class="fill-soft text-[12px]"
			>{gained.unit}</text
		>
		{#if gained.allows}
			<line
				x1={x(gained.allows)}
				x2={x(gained.allows)}
				y1="0"
				y2={high - 20}
				class="stroke-over"
				stroke-width="2"
				stroke-dasharray="5 3"
			/>
		{/if}
		{#each rows as r, i (r.key)}
			{@const y = i * ROW + ROW / 2 + 2}
			<text x={LEFT - 10} y={y + 4} text-anchor="end" class="fill-ink text-[13px]">{r.name}</text>
			{#if !r.room}
				{#if low === 0}
					<rect
						x={x(0)}
						width={x(r.side.mid) - x(0)}
						y={y - 7}
						height="14"
						class={r.name === 'before' ? 'fill-land' : 'fill-water-2'}
					/>
				{/if}
				<text
					x={x(Math.max(...r.runs)) + 12}
					y={y + 5}
					class="fill-ink stroke-paper text-[13px] [paint-order:stroke]"
					stroke-width="4">{r.side.mid.toLocaleString('en', { maximumSignificantDigits: 4 })}</text
				>
				<rect
					x={x(r.side.low)}
					width={Math.max(3, x(r.side.up) - x(r.side.low))}
					y={y - 11}
					height="22"
					class={r.name === 'before' ? 'fill-land stroke-coast' : 'fill-water-2 stroke-water-5'}
				/>
				<line
					x1={x(r.side.mid)}
					x2={x(r.side.mid)}
					y1={y - 14}
					y2={y + 14}
					class="stroke-ink"
					stroke-width="2.5"
				/>
			{/if}
			{#each r.runs as v, k (k)}
				<path
					d={r.room ? diamond : dot}
					transform="translate({x(v)},{y + ((k % 3) - 1) * 5})"
					class={r.room ? 'fill-none stroke-soft' : 'fill-ink'}
				/>
			{/each}
		{/each}
	</svg>
</div>
