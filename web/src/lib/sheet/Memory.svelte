<script lang="ts">
	// What the memory slots take together, which go first, and how fast they run.
	import { Button } from 'flowbite-svelte';
	import * as pick from './choices';
	import { useDraft } from './draft.svelte';
	import Field from './Field.svelte';

	const get = useDraft();
	const draft = $derived(get());
	const s = $derived(draft.sheet);
	const sizes: pick.Choice[] = [
		{ value: undefined, name: '?' },
		...[1, 2, 4, 8, 16, 24, 32, 48, 64, 96, 128, 192, 256, 384, 512, 768, 1024, 2048].map((n) => ({
			value: n * 2 ** 30,
			name: n + ' GiB'
		}))
	];
	const kept: pick.Choice[] = [
		{ value: undefined, name: 'not stated' },
		...[32, 64, 128, 256, 512, 1024, 2048, 4096].map((n) => ({
			value: n * 2 ** 20,
			name: n < 1024 ? n + ' MiB' : n / 1024 + ' GiB'
		}))
	];
	const volts: pick.Choice[] = [
		{ value: undefined, name: '?' },
		...[1800, 1500, 1350, 1250, 1200, 1100].map((n) => ({ value: n, name: n / 1000 + ' V' }))
	];
	const slots = $derived(s.sockets.filter((k) => k.kind === 'dimm' || k.kind === 'sodimm'));
	const place = (n: number) => (s.memory.fill ?? []).findIndex((f) => f.slots.length === n);
	let wrong = $state<Record<number, string>>({});

	/** Slots typed for n modules, with blanks or commas between them; empty takes the row out. */
	function order(n: number, typed: unknown) {
		const names = String(typed ?? '')
			.split(/[\s,]+/)
			.filter((x) => x !== '');
		wrong[n] =
			names.length === 0 || names.length === n ? '' : `write ${n} slots, not ${names.length}`;
		if (wrong[n]) return;
		draft.change((x) => {
			const others = (x.memory.fill ?? []).filter((f) => f.slots.length !== n);
			if (names.length === n) others.push({ slots: names as [string, ...string[]] });
			others.sort((a, b) => a.slots.length - b.slots.length);
			if (others.length > 0) x.memory.fill = others;
			else delete x.memory.fill;
		});
	}
	function addSpeed() {
		draft.change((x) => {
			x.memory.speeds ??= [];
			const most = x.memory.speeds.reduce((n, r) => Math.max(n, r.modulesPerChannel), 0);
			x.memory.speeds.push({ modulesPerChannel: most + 1, rateMTps: 3200 });
		});
	}
	function dropSpeed(i: number) {
		draft.change((x) => {
			x.memory.speeds?.splice(i, 1);
			if (x.memory.speeds?.length === 0) delete x.memory.speeds;
		});
	}
</script>

<div class="grid gap-2 sm:grid-cols-2 xl:grid-cols-3">
	<Field at="/memory/generation" label="family" choices={pick.FAMILY} />
	<Field at="/memory/registered" label="registered modules, and only those" choices={pick.ANSWER} />
	<Field at="/memory/ecc" label="uses check bits (ECC)" choices={pick.ANSWER} />
	<Field at="/memory/millivolts" label="feeds its modules" choices={volts} />
	<Field at="/memory/module/statedBytes" label="largest module, as stated" choices={sizes} />
	<Field at="/memory/module/provenBytes" label="a larger one, proven" choices={sizes} />
	<Field at="/memory/module/provenBy" label="by which job" max={120} />
	<Field at="/memory/total/statedBytes" label="all slots together, as stated" choices={sizes} />
	<Field at="/memory/total/provenBytes" label="more together, proven" choices={sizes} />
	<Field at="/memory/total/provenBy" label="more together: by which job" max={120} />
	<Field at="/memory/graphicsBytes" label="kept by graphics" choices={kept} />
	{#if s.memory.generation === 'ddr5'}
		<Field at="/memory/clockDrivers" label="runs clock drivers" choices={pick.ANSWER} />
	{/if}
</div>
{#if slots.length > 0}
	<h3 class="mt-4">Which slots first</h3>
	<div class="grid gap-2 sm:grid-cols-2 xl:grid-cols-3">
		{#each slots as _, i (i)}
			{@const n = i + 1}
			<div>
				<Field
					at="/memory/fill/{place(n)}/slots"
					label="{n} module{n > 1 ? 's' : ''}"
					placeholder="not stated"
					onset={(v) => order(n, v)}
				/>
				{#if wrong[n]}<p role="alert" class="text-over">{wrong[n]}</p>{/if}
			</div>
		{/each}
	</div>
{/if}
<h3 class="mt-4">How fast</h3>
<ul class="grid gap-2">
	{#each s.memory.speeds ?? [] as _, i (i)}
		<li class="flex flex-wrap items-end gap-2">
			<Field at="/memory/speeds/{i}/modulesPerChannel" label="modules a channel" number />
			<Field at="/memory/speeds/{i}/ranks" label="of ranks, if told apart" number />
			<Field at="/memory/speeds/{i}/rateMTps" label="up to, MT/s" number />
			<button
				class="size-11 rounded border border-line hover:bg-overtint"
				aria-label="Take speed {i + 1} away"
				onclick={() => dropSpeed(i)}>×</button
			>
		</li>
	{/each}
</ul>
<Button color="alternative" class="mt-2" onclick={addSpeed}>Add a speed</Button>
