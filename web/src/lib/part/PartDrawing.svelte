<script lang="ts">
	// A part as its facts make it: to scale within its kind, dashed where they are not known.
	import type { Part } from '$lib/api/types.gen';

	let { part }: { part: Part } = $props();

	const m2 = $derived(part.drive?.m2 ?? part.card?.m2);
	const isM2 = $derived(m2 !== undefined);
	/** Pixels a millimetre, by kind. */
	const M2 = 1.5;
	const CARD = 0.62;

	// Where the notch of a long module lies, as a share of its contacts (JESD79-2 and -3; of
	// DDR4 off the centre, of DDR5 near it). Of short ones it is not drawn.
	const NOTCH: Record<string, number> = {
		ddr2: 64 / 120,
		ddr3: 48 / 120,
		ddr4: 0.54,
		ddr5: 0.51
	};
	const EDGE: Record<number, number> = { 1: 25, 4: 39, 8: 56, 16: 89 };
	// The middle of the contacts a key takes, of 75, seen from the label (PCI Express M.2).
	const KEY: Record<string, number> = {
		M: (75 - 62.5) / 75,
		B: (75 - 15.5) / 75,
		E: (75 - 27.5) / 75,
		A: (75 - 11.5) / 75
	};
	const unknown = '5 4';

	const title = $derived(
		isM2
			? 'M.2 card, seen from its label'
			: part.module
				? 'Memory module'
				: part.card
					? 'Card for a slot, its bracket at the left'
					: part.enclosure
						? 'Box for a USB port'
						: part.fitting
							? part.fitting.kind || 'Fitting'
							: 'Drive'
	);
	const positions = $derived(part.card?.carrier?.positions ?? part.enclosure?.positions ?? []);
	const boxMM = $derived(
		part.drive?.form === '3.5in'
			? { w: 147, h: 102 }
			: part.drive?.form === '5.25in'
				? { w: 170, h: 146 }
				: part.drive?.form === 'slim'
					? { w: 127, h: 128 }
					: { w: 100, h: 70 }
	);
</script>

<svg viewBox="0 0 220 110" class="h-28 w-56 shrink-0" role="img" aria-label={title}>
	{#if isM2 && m2}
		{@const w = (m2.lengthMM ?? 80) * M2}
		{@const h = (m2.widthMM ?? 22) * M2}
		{@const dash = m2.lengthMM ? undefined : unknown}
		<rect
			x="8"
			y="40"
			width={w}
			height={h}
			class="fill-land stroke-coast"
			stroke-dasharray={dash}
		/>
		<path d="M{8 + w} {40 + h / 2 - 4}a4 4 0 0 0 0 8" class="fill-paper stroke-coast" />
		{#each m2.keys ?? [] as k (k)}
			<rect x="4" y={40 + h * (KEY[k] ?? 0.5) - 3} width="10" height="6" class="fill-paper" />
			<text x="20" y={40 + h * (KEY[k] ?? 0.5) + 4} class="fill-ink text-[11px]">{k}</text>
		{/each}
		{#if m2.heatsink === true}
			{#each [0, 1, 2, 3, 4, 5] as i (i)}
				<rect
					x={14 + i * ((w - 16) / 6)}
					y="28"
					width={(w - 16) / 9}
					height="12"
					class="fill-water-4"
				/>
			{/each}
		{/if}
		<rect
			x="34"
			y={40 + h * 0.25}
			width={Math.max(8, w * 0.3)}
			height={h * 0.5}
			class="fill-water-2"
		/>
		{#if m2.twoSided === true}
			<rect x="34" y={40 + h + 3} width={Math.max(8, w * 0.3)} height="6" class="fill-water-4" />
		{/if}
		<text x={8 + w / 2} y="104" text-anchor="middle" class="fill-ink text-[12px]"
			>{m2.lengthMM ? `${m2.lengthMM} mm` : 'length ?'}</text
		>
	{:else if part.module}
		{@const short = part.module.form === 'sodimm'}
		{@const w = short ? 108 : 208}
		{@const at = short ? undefined : NOTCH[part.module.generation ?? '']}
		<rect
			x="6"
			y="34"
			width={w}
			height={short ? 46 : 48}
			class="fill-land stroke-coast"
			stroke-dasharray={part.module.form ? undefined : unknown}
		/>
		{#each Array.from({ length: short ? 4 : 8 }, (_, i) => i) as i (i)}
			<rect
				x={14 + i * ((w - 16) / (short ? 4 : 8))}
				y="42"
				width="14"
				height="20"
				class="fill-water-3"
			/>
		{/each}
		{#if at}
			<rect
				x={6 + w * at - 3}
				y={short ? 73 : 75}
				width="6"
				height="9"
				class="fill-paper stroke-coast"
			/>
		{/if}
		<text x={6 + w / 2} y="102" text-anchor="middle" class="fill-ink text-[12px]"
			>{part.module.generation?.toUpperCase() ?? 'family ?'}{short ? ', short' : ''}</text
		>
	{:else if part.card}
		{@const w = Math.min(190, (part.card.lengthMM ?? 170) * CARD)}
		{@const h = part.card.lowBracket === true ? 42 : 66}
		{#each Array.from({ length: part.card.openings ?? 1 }, (_, i) => i) as i (i)}
			<rect
				x={8 - i * 3}
				y={14 + i * 4}
				width="6"
				height={h + 14}
				class="fill-coast"
				opacity={part.card.openings ? 1 : 0.4}
			/>
		{/each}
		<rect
			x="16"
			y="20"
			width={w}
			height={h}
			class="fill-land stroke-coast"
			stroke-dasharray={part.card.lengthMM ? undefined : unknown}
		/>
		{#each positions as _, i (i)}
			{@const step = (w - 12) / Math.max(1, positions.length)}
			<rect
				x={22 + i * step}
				y="26"
				width={Math.max(3, step - 5)}
				height={h - 14}
				class="fill-water-2 stroke-coast"
			/>
			<text
				x={22 + i * step + (step - 5) / 2}
				y={28 + h / 2}
				text-anchor="middle"
				class="fill-ink text-[11px]">{i + 1}</text
			>
		{/each}
		<rect
			x="34"
			y={20 + h}
			width={EDGE[part.card.connectorLanes ?? 0] ?? 60}
			height="9"
			class="fill-sound"
			opacity={part.card.connectorLanes ? 1 : 0.35}
		/>
		{#each part.card.plugs ?? [] as p, i (i)}
			<rect x={16 + w - 18} y={24 + i * 13} width="14" height="10" class="fill-ink" />
			<title>{p}</title>
		{/each}
		<text x="34" y={20 + h + 22} class="fill-ink text-[12px]"
			>{part.card.connectorLanes ? `x${part.card.connectorLanes}` : 'x?'}</text
		>
	{:else if part.enclosure}
		<rect x="10" y="26" width="170" height="58" rx="8" class="fill-land stroke-coast" />
		<path d="M180 55h30" class="stroke-ink" stroke-width="4" />
		{#each positions as p, i (i)}
			{@const step = 158 / positions.length}
			<rect
				x={16 + i * step}
				y="34"
				width={step - 6}
				height="42"
				class="fill-water-2 stroke-coast"
			/>
			<text
				x={16 + i * step + step / 2 - 3}
				y="60"
				text-anchor="middle"
				class="fill-ink text-[12px]">{p.drives?.join(' ') ?? 'M.2'}</text
			>
		{/each}
	{:else if part.fitting}
		<path d="M20 55C70 10 130 100 196 55" class="fill-none stroke-coast" stroke-width="5" />
		{#each [part.fitting.portEnd, part.fitting.end] as end, i (i)}
			<rect
				x={i === 0 ? 8 : 188}
				y={end === 'angled' ? 40 : 47}
				width={end === 'angled' ? 12 : 24}
				height={end === 'angled' ? 30 : 16}
				class="fill-land stroke-ink"
			/>
		{/each}
	{:else}
		{@const w = boxMM.w * 0.95}
		{@const h = boxMM.h * 0.62}
		<rect
			x="20"
			y="6"
			width={w}
			height={h}
			rx="3"
			class="fill-land stroke-coast"
			stroke-dasharray={part.drive?.form ? undefined : unknown}
		/>
		{#if part.drive?.media === 'platter' || part.drive?.media === 'optical'}
			<circle cx={20 + w / 2} cy={6 + h / 2} r={h * 0.38} class="fill-water-2 stroke-coast" />
			<circle cx={20 + w / 2} cy={6 + h / 2} r="4" class="fill-paper stroke-coast" />
		{:else}
			<rect x={30} y={16} width={w * 0.5} height={h * 0.5} class="fill-water-2" />
		{/if}
		<text x={20 + w + 8} y={h} class="fill-ink text-[12px]"
			>{part.drive?.heightMM ? `${part.drive.heightMM} mm high` : ''}</text
		>
	{/if}
</svg>
