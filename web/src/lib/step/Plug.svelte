<script lang="ts">
	// How a plug lets go, or goes on, from the side: what is pressed or lifted, and which way it is drawn.
	import ArrowHead from './ArrowHead.svelte';
	import type { Layer } from '$lib/api/types.gen';

	interface Props {
		plug: NonNullable<NonNullable<Layer['leads']>[number]['plug']>;
		/** It goes back on. */
		on: boolean;
	}
	let { plug, on }: Props = $props();
	const uid = $props.id();
	const sata = $derived(plug === 'SATA data' || plug === 'SATA power');
	const ribbon = $derived(plug === 'flip lock' || plug === 'slide lock');
	const latch = $derived(plug === 'latch' || plug === 'card power');
	const says = $derived(
		{
			friction: on ? 'Straight down until it is home' : 'Straight up, by the plug',
			latch: on ? 'Straight down until the latch clicks' : 'Latch pressed, then straight up',
			'card power': on ? 'Straight down until the latch clicks' : 'Latch pressed, then straight up',
			'flip lock': on ? 'Ribbon in, then the bar down' : 'Bar up, then the ribbon out',
			'slide lock': on
				? 'Ribbon in, then the bar in at both ends'
				: 'Bar out a millimetre at both ends, then the ribbon',
			coax: on
				? 'Square on its post, pressed until it snaps'
				: 'Straight up, the tool under its rim',
			'SATA data': 'The narrow L-shaped plug',
			'SATA power': 'The wide L-shaped plug'
		}[plug]
	);
</script>

{#snippet way(d: string)}
	<path {d} class="fill-none stroke-over" stroke-width="2" marker-end="url(#{uid}to)" />
{/snippet}

<figure class="mx-auto max-w-72">
	<svg viewBox="0 0 160 62" class="h-auto w-full" aria-hidden="true">
		<defs>
			<ArrowHead id="{uid}to" />
		</defs>
		{#if sata}
			{@const data = plug === 'SATA data'}
			<path
				d="M14 12h46v22h-8v-8H14Z"
				class={data ? 'fill-overtint stroke-over' : 'fill-raised stroke-soft'}
				stroke-width={data ? 2.5 : 1.2}
			/>
			<path
				d="M76 12h70v22h-8v-8H76Z"
				class={data ? 'fill-raised stroke-soft' : 'fill-overtint stroke-over'}
				stroke-width={data ? 1.2 : 2.5}
			/>
			<text x="37" y="52" text-anchor="middle" font-size="11" class="fill-ink">data</text>
			<text x="110" y="52" text-anchor="middle" font-size="11" class="fill-ink">power</text>
		{:else}
			<path d="M10 56H150" class="stroke-ink" stroke-width="2" />
			{#if ribbon}
				<path d="M50 56v-14h48v14" class="fill-land stroke-coast" stroke-width="1.5" />
				<path d="M98 50h50" class="stroke-water-5" stroke-width="4" />
				{#if plug === 'flip lock'}
					<path d="M56 42 78 20" class="stroke-ink" stroke-width="4" />
					{@render way(on ? 'M72 14q14 10 12 24' : 'M84 38q2-14-12-24')}
				{:else}
					<path d="M104 42v12" class="stroke-ink" stroke-width="4" />
					{@render way(on ? 'M124 36H106' : 'M106 36H124')}
				{/if}
				{@render way(on ? 'M148 26H128' : 'M126 26H148')}
				<text x="10" y="14" font-size="10" class="fill-ink">bar</text>
				<text x="118" y="18" font-size="10" class="fill-ink">ribbon</text>
			{:else if plug === 'coax'}
				<path d="M72 56v-6h16v6" class="fill-land stroke-coast" stroke-width="1.5" />
				<circle cx="80" cy="42" r="9" class="fill-water-2 stroke-ink" stroke-width="1.5" />
				<path d="M89 42q30 0 58-14" class="fill-none stroke-ink" stroke-width="2.5" />
				{@render way(on ? 'M80 6V28' : 'M80 28V6')}
				{#if !on}<path d="M30 52 68 46" class="stroke-coast" stroke-width="3" />
					<text x="10" y="44" font-size="10" class="fill-ink">tool</text>{/if}
			{:else}
				<path d="M56 56v-12h48v12" class="fill-land stroke-coast" stroke-width="1.5" />
				<rect
					x="60"
					y="22"
					width="40"
					height="24"
					class="fill-water-2 stroke-ink"
					stroke-width="1.5"
				/>
				<path
					d="M70 22v-9M80 22v-9M90 22v-9"
					class="stroke-ink"
					stroke-width="2"
					stroke-linecap="round"
				/>
				{@render way(on ? 'M118 10V34' : 'M118 34V10')}
				{#if latch}
					<path d="M58 20v24" class="stroke-ink" stroke-width="4" />
					{#if on}<text x="18" y="40" font-size="10" class="fill-over">click</text>
					{:else}{@render way('M34 26H54')}{/if}
				{/if}
			{/if}
		{/if}
	</svg>
	<figcaption class="text-center text-soft">{says}</figcaption>
</figure>
