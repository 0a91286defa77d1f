<script lang="ts">
	// The tray: a cell for the fasteners of each step, in the order they came out, each screw
	// drawn as long as it is.
	import type { Cell } from '$lib/api/types.gen';

	interface Props {
		cells: readonly Cell[];
		/** Steps of which the cell is lit. */
		step?: string;
		/** Which are back. */
		back: (c: Cell) => boolean;
		/** Pixels for each millimetre. */
		scale?: number;
	}
	let { cells, step = '', back, scale = 4 }: Props = $props();
	const usual = 6; // mm, where the sheet does not say how long they are
	const state = (c: Cell) => (c.laid ? 'in the tray' : back(c) ? 'back' : 'in the machine');
	/** Millimetres across the thread, for the drawing alone. */
	const thick = (c: Cell) =>
		({ 'M1.6': 1.6, M2: 2, 'M2.5': 2.5, M3: 3, 'M3.5': 3.5, M4: 4 })[c.fastener.thread as string] ??
		3.5;
</script>

<ol class="grid grid-cols-[repeat(auto-fill,minmax(8.5rem,1fr))] gap-2" aria-label="Tray">
	{#each cells as c (c.n)}
		{@const long = c.fastener.lengthMM ?? usual}
		<li
			class={[
				'border-2 p-1',
				c.out === step || c.back === step ? 'border-over' : 'border-line',
				c.laid ? 'bg-land' : 'bg-raised'
			]}
		>
			<p class="flex justify-between gap-1">
				<strong class="tabular-nums">{c.n}</strong>
				<span class={c.laid ? 'font-semibold' : 'text-soft'}>{state(c)}</span>
			</p>
			<svg
				viewBox="0 0 {Math.max(30, long + 6)} {thick(c) * 2 + 2}"
				height={(thick(c) * 2 + 2) * scale}
				width={Math.max(30, long + 6) * scale}
				class="max-w-full"
				aria-hidden="true"
			>
				<rect
					x="1"
					y="1"
					width="2.4"
					height={thick(c) * 2}
					rx="0.8"
					class={c.laid ? 'fill-ink' : 'fill-line'}
				/>
				<rect
					x="3.4"
					y={1 + thick(c) / 2}
					width={long}
					height={thick(c)}
					class={c.laid ? 'fill-ink' : 'fill-line'}
				/>
			</svg>
			<p class="text-soft">{c.says}</p>
			<p class="text-soft">{c.of}</p>
		</li>
	{:else}
		<li class="col-span-full text-soft">No loose fastener comes out.</li>
	{/each}
</ol>
