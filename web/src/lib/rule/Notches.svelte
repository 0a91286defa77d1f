<script lang="ts">
	// The edge of an M.2 card from its label side, with its notches, or a socket's
	// key: 75 positions of half a millimetre, eight lost to each key.
	interface Props {
		keys: readonly string[];
		socket?: boolean;
		label: string;
	}
	let { keys, socket = false, label }: Props = $props();
	// First pin lost to each key (PCI Express M.2); position 75 is at the left.
	const FIRST: Record<string, number> = { A: 8, B: 12, E: 24, M: 59 };
	const x = (pin: number) => 4 + (75 - pin) * 2;
	const cuts = $derived(
		keys.flatMap((k) => (FIRST[k] === undefined ? [] : [{ k, x: x(FIRST[k] + 7), w: 16 }]))
	);
</script>

<svg viewBox="0 0 160 34" class="h-11 w-52 shrink-0" role="img" aria-label={label}>
	<rect
		x="2"
		y={socket ? 8 : 2}
		width="156"
		height={socket ? 18 : 22}
		class="fill-land stroke-coast"
	/>
	{#if !socket}
		{#each Array.from({ length: 38 }, (_, i) => i) as i (i)}
			<path d="M{6 + i * 4} 14v9" class="stroke-coast" stroke-width="1.6" />
		{/each}
	{/if}
	{#each cuts as c (c.k)}
		<rect
			x={c.x}
			y={socket ? 6 : 12}
			width={c.w}
			height={socket ? 22 : 14}
			class={socket ? 'fill-ink' : 'fill-paper stroke-coast'}
		/>
		<text x={c.x + c.w / 2} y="33" text-anchor="middle" class="fill-ink text-[12.5px]">{c.k}</text>
	{/each}
</svg>
