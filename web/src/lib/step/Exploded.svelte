<script lang="ts">
	// The layers from the side, apart: the outermost on top, each as wide as it is, the board and
	// what opens from below it underneath.
	import type { Layer, Sheet } from '$lib/api/types.gen';
	import { boxOf, depths } from './geometry';

	interface Props {
		sheet: Sheet;
		layers: readonly Layer[];
		off?: readonly string[];
		/** The layer that is lit. */
		lit?: string;
		onpick?: (id: string) => void;
	}
	let { sheet, layers, off = [], lit = '', onpick }: Props = $props();

	const deep = $derived(depths(layers));
	const order = (side: 'top' | 'bottom') =>
		layers
			.filter((l) => (l.side === 'bottom') === (side === 'bottom'))
			.toSorted((a, b) => (deep.get(a.id) ?? 0) - (deep.get(b.id) ?? 0));
	const above = $derived(order('top'));
	const below = $derived(order('bottom').toReversed());
	const ROW = 34;
	const span = $derived.by(() => {
		const boxes = layers.flatMap((l) => (l.outline ? [boxOf(l.outline)] : []));
		const from = Math.min(0, ...boxes.map((b) => b.x));
		return { from, to: Math.max(sheet.board.widthMM, ...boxes.map((b) => b.x + b.w)) };
	});
	const WIDE = 300;
	const k = $derived(WIDE / (span.to - span.from));
	const rows = $derived([
		...above.map((l, i) => ({ l, y: 12 + i * ROW })),
		...below.map((l, i) => ({ l, y: 12 + (above.length + 1 + i) * ROW }))
	]);
	const high = $derived((layers.length + 1) * ROW + 16);
	const screws = (l: Layer) => (l.fasteners ?? []).reduce((n, f) => n + f.count, 0);
</script>

<svg
	viewBox="0 0 600 {high}"
	class="h-auto w-full max-w-2xl"
	role="group"
	aria-label="Layers from the side, the outermost on top"
>
	<path
		d="M{8 + (sheet.board.widthMM / 2 - span.from) * k} 6V{high - 6}"
		class="stroke-line"
		stroke-width="1"
		stroke-dasharray="3 4"
	/>
	<rect
		x={8 - span.from * k}
		y={12 + above.length * ROW + 4}
		width={sheet.board.widthMM * k}
		height="8"
		class="fill-land stroke-coast"
	/>
	<text x={WIDE + 20} y={12 + above.length * ROW + 13} font-size="15" class="fill-soft">board</text>
	{#each rows as { l, y } (l.id)}
		{@const b = l.outline ? boxOf(l.outline) : { x: 0, y: 0, w: sheet.board.widthMM, h: 0 }}
		<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
		<g
			role={onpick ? 'button' : undefined}
			tabindex={onpick ? 0 : undefined}
			onclick={() => onpick?.(l.id)}
			onkeydown={(e) => {
				if (e.key === 'Enter' || e.key === ' ') {
					e.preventDefault();
					onpick?.(l.id);
				}
			}}
			class={onpick && 'cursor-pointer'}
		>
			<rect x="2" y={y - 8} width="596" height={ROW - 2} class="fill-transparent" />
			<rect
				x={8 + (b.x - span.from) * k}
				{y}
				width={b.w * k}
				height="14"
				rx="2"
				class={[
					l.id === lit ? 'stroke-over' : 'stroke-ink',
					off.includes(l.id) ? 'fill-none' : l.id === lit ? 'fill-overtint' : 'fill-water-2'
				]}
				stroke-width={l.id === lit ? 2.5 : 1.2}
				stroke-dasharray={off.includes(l.id) || l.typical ? '5 4' : undefined}
			/>
			{#each (l.fasteners ?? []).flatMap((f) => f.at ?? []) as p, i (i)}
				<path
					d="M{8 + (p.xMM - span.from) * k} {y - 5}v9m-3 -9h6"
					class="stroke-over"
					stroke-width="1.6"
				/>
			{/each}
			{#each (l.leads ?? []).flatMap((d) => (d.at ? [d.at] : [])) as p, i (i)}
				<path
					d="M{8 + (p.xMM - span.from) * k} {y + 14}q4 5 0 9"
					class="fill-none stroke-ink"
					stroke-width="1.6"
				/>
			{/each}
			<text
				x={WIDE + 20}
				y={y + 12}
				font-size="15"
				class={l.id === lit ? 'fill-over font-semibold' : 'fill-ink'}
			>
				{l.name}{#if off.includes(l.id)}<tspan dx="5" class="fill-soft">· off</tspan
					>{:else if screws(l)}<tspan dx="5" class="fill-soft"
						>· {screws(l)} {screws(l) === 1 ? 'screw' : 'screws'}</tspan
					>{/if}{#if l.leads?.length}<tspan dx="5" class="fill-soft"
						>· {l.leads.length} {l.leads.length === 1 ? 'lead' : 'leads'}</tspan
					>{/if}</text
			>
		</g>
	{/each}
</svg>
