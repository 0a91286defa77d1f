<script lang="ts">
	// How a part goes in, from the side: the angle, where to press, what clicks.
	import ArrowHead from './ArrowHead.svelte';
	import type { Part, Socket } from '$lib/api/types.gen';
	import { m2Of } from './geometry';

	interface Props {
		part: Part;
		socket: Socket | undefined;
		/** It comes out. */
		out: boolean;
	}
	let { part, socket, out }: Props = $props();
	const uid = $props.id();
	const kind = $derived(
		m2Of(part)
			? 'm2'
			: part.module
				? part.module.form === 'sodimm'
					? 'slanted'
					: 'upright'
				: part.card && socket?.kind === 'pcie'
					? 'card'
					: part.drive && socket?.kind !== 'usb'
						? 'drive'
						: ''
	);
	/**
	 * The groups of contacts of an M.2 card along its 75 places, by the standard: key B leaves six at one
	 * end, key M five at the other.
	 */
	const NOTCH: Record<string, readonly [number, number]> = {
		A: [7, 15],
		B: [11, 19],
		E: [23, 31],
		M: [58, 66]
	};
	const keys = $derived(m2Of(part)?.keys ?? []);
	const notches = $derived(keys.flatMap((k) => (NOTCH[k] ? [NOTCH[k]] : [])));
	const notched = $derived(kind === 'm2' && notches.length > 0 && !out);
	const rib = $derived(socket?.kind === 'm2' && socket.key ? NOTCH[socket.key] : undefined);
	const says = $derived(
		{
			m2: out
				? 'From the side: screw out, the card springs up to about 30 degrees and is drawn out'
				: 'From the side: in at about 30 degrees, then folded flat, the screw at its far end',
			slanted: out
				? 'From the side: both clips spread, the module springs up'
				: 'From the side: in at about 30 degrees, then folded down until both clips snap',
			upright: out
				? 'From the side: levers open, the module rises'
				: 'From the side: straight down, one end until it clicks, then the other',
			card: out
				? 'From the side: latch pressed, drawn straight up'
				: 'From the side: pressed straight down until the latch clicks, bracket at the rear',
			drive: 'The plugs: both L-shaped, the notch on the same side, data narrow, power wide',
			'': ''
		}[kind]
	);
</script>

{#snippet way(d: string)}
	<path {d} class="fill-none stroke-over" stroke-width="2" marker-end="url(#{uid}in)" />
{/snippet}

{#if kind}
	<div
		class={[
			'mx-auto grid items-end gap-4',
			notched ? 'max-w-xl grid-cols-2 print:grid-cols-1' : 'max-w-72'
		]}
	>
		<svg viewBox="0 0 160 70" class="h-auto w-full" role="img" aria-label={says}>
			<defs>
				<ArrowHead id="{uid}in" />
			</defs>
			{#if kind === 'drive'}
				<path
					d="M14 18h46v22h-8v-8H14ZM76 18h70v22h-8v-8H76Z"
					class="fill-water-2 stroke-ink"
					stroke-width="1.5"
				/>
				<text x="37" y="58" text-anchor="middle" font-size="11" class="fill-ink">data</text>
				<text x="110" y="58" text-anchor="middle" font-size="11" class="fill-ink">power</text>
			{:else if kind === 'upright' || kind === 'card'}
				<path d="M10 58H150" class="stroke-ink" stroke-width="2" />
				<path d="M30 58v-9h100v9" class="fill-land stroke-coast" stroke-width="1.5" />
				<rect
					x="32"
					y="20"
					width="96"
					height="26"
					class="fill-water-2 stroke-ink"
					stroke-width="1.5"
				/>
				{#if kind === 'upright'}
					<path d="M26 58l-6-16M134 58l6-16" class="stroke-ink" stroke-width="3" />
				{:else}
					<path d="M32 12v46h-6" class="fill-none stroke-ink" stroke-width="2.5" />
					<path d="M136 58v-10" class="stroke-ink" stroke-width="3" />
				{/if}
				{@render way(out ? 'M52 18V4' : 'M52 2V16')}
				{@render way(out ? 'M108 18V4' : 'M108 2V16')}
				{#if !out}
					<text x="52" y="37" text-anchor="middle" font-size="11" class="fill-ink">1</text>
					<text x="108" y="37" text-anchor="middle" font-size="11" class="fill-ink">2</text>
					<text x="158" y="46" text-anchor="end" font-size="10" class="fill-over">click</text>
				{/if}
			{:else}
				<path d="M6 60H154" class="stroke-ink" stroke-width="2" />
				<rect
					x="14"
					y="44"
					width="20"
					height="16"
					class="fill-land stroke-coast"
					stroke-width="1.5"
				/>
				<path d="M30 52 126 12" class="stroke-water-5" stroke-width="5" />
				<path d="M30 52H132" class="stroke-soft" stroke-width="1.5" stroke-dasharray="4 3" />
				<path d="M70 52a40 40 0 0 0 -3 -15" class="fill-none stroke-over" stroke-width="1.5" />
				<text x="76" y="46" font-size="11" class="fill-over">30°</text>
				{#if kind === 'm2'}
					<rect x="128" y="46" width="7" height="14" class="fill-coast" />
					{@render way(out ? 'M60 28 82 18' : 'M84 16 60 26')}
					{#if !out}{@render way('M126 18q12 10 8 24')}{/if}
					<text x="140" y="58" font-size="10" class="fill-ink">post</text>
				{:else}
					<path d="M120 60v-14M136 60v-14" class="stroke-ink" stroke-width="3" />
					{@render way(out ? 'M60 28 82 18' : 'M84 16 60 26')}
					{#if !out}{@render way('M126 18q12 10 4 24')}{/if}
					{#if !out}<text x="158" y="42" text-anchor="end" font-size="10" class="fill-over"
							>snap</text
						>{/if}
				{/if}
			{/if}
		</svg>
		{#if notched}
			<!-- The edge that goes in, over the socket it goes into. -->
			<svg
				viewBox="0 0 184 64"
				class="h-auto w-full"
				role="img"
				aria-label="The contacts: notch {keys.join(' and ')} over the rib of the socket{rib
					? `, key ${socket?.key}`
					: ''}"
			>
				<rect
					x="14"
					y="2"
					width="112"
					height="14"
					class="fill-water-2 stroke-ink"
					stroke-width="1.5"
				/>
				{#each [...Array(37).keys()] as i (i)}
					{@const at = i * 2}
					{#if !notches.some(([a, b]) => at >= a && at <= b)}
						<rect x={18 + at * 1.4} y="10" width="1.9" height="9" class="fill-coast" />
					{/if}
				{/each}
				{#each notches as [a, b] (a)}
					<path d="M{18 + a * 1.4} 19v-10h{(b - a) * 1.4}v10" class="fill-paper stroke-ink" />
				{/each}
				<rect
					x="12"
					y="30"
					width="116"
					height="10"
					class="fill-land stroke-coast"
					stroke-width="1.5"
				/>
				{#if rib}
					<rect
						x={18 + rib[0] * 1.4 + 1.5}
						y="24"
						width={(rib[1] - rib[0]) * 1.4 - 3}
						height="16"
						class="fill-coast"
					/>
				{/if}
				<text x="132" y="15" font-size="10" class="fill-ink">notch {keys.join('+')}</text>
				<text x="132" y="39" font-size="10" class="fill-ink"
					>{rib ? `key ${socket?.key}` : 'socket'}</text
				>
			</svg>
		{/if}
	</div>
{/if}
