<script lang="ts">
	// The machine as a whole: its name, its board, its case and its firmware.
	import { Button } from 'flowbite-svelte';
	import * as pick from './choices';
	import { useDraft } from './draft.svelte';
	import Field from './Field.svelte';
	import { slug } from './slug';

	let { fresh }: { fresh: boolean } = $props();
	const get = useDraft();
	const draft = $derived(get());
	const s = $derived(draft.sheet);

	function name(v: unknown) {
		draft.change((x) => {
			// A new sheet's short name follows its name until somebody writes it.
			if (fresh && (x.id === slug(x.name) || x.id === '')) x.id = slug(String(v ?? ''));
			x.name = String(v ?? '');
		});
	}
	function addPlug() {
		draft.change((x) => {
			x.chassis ??= {};
			x.chassis.plugs ??= [];
			const kinds = x.chassis.plugs.map((p) => p.kind);
			const kind = pick.PLUGS.map((p) => p.value).find((k) => !kinds.includes(k as never));
			x.chassis.plugs.push({ kind: (kind ?? 'sata') as 'sata', count: 1 });
		});
	}
</script>

<div class="grid gap-2 sm:grid-cols-2 xl:grid-cols-3">
	<Field at="/name" label="name" max={120} onset={name} />
	{#if fresh}<Field at="/id" label="short name, for files" max={60} />{/if}
	<Field at="/class" label="class" choices={pick.CLASS} />
	<Field at="/source" label="manual and edition" max={200} />
	<Field at="/board/widthMM" label="board, mm wide" number />
	<Field at="/board/heightMM" label="board, mm high" number />
	<Field at="/firmware/setupKey" label="key into set-up" max={60} />
	<Field at="/firmware/bootKey" label="key for the boot list" max={60} />
	<Field at="/firmware/version" label="firmware version" max={60} />
	<Field at="/firmware/startsPCIe" label="starts from PCIe drives" choices={pick.ANSWER} />
	<Field at="/chassis/cardMM" label="longest card, mm" number />
	<Field at="/chassis/lowProfileSlots" label="low-profile cards only" choices={pick.ANSWER} />
	<Field at="/chassis/supply" label="model of its supply" max={60} />
	<Field at="/chassis/feeds3V3" label="SATA plugs carry 3.3 V" choices={pick.ANSWER} />
	<Field at="/chassis/earthed" label="three-pin lead and switch" choices={pick.ANSWER} />
	<Field at="/chassis/weightKG" label="weight, kg" number />
	<Field at="/chassis/cover" label="how the cover comes off" max={300} />
</div>
<h3 class="mt-4">Free power plugs</h3>
<ul class="grid gap-2">
	{#each s.chassis?.plugs ?? [] as p, i (i)}
		<li class="flex flex-wrap items-end gap-2">
			<Field at="/chassis/plugs/{i}/kind" label="kind" choices={pick.PLUGS} />
			<Field at="/chassis/plugs/{i}/count" label="how many" number />
			<Field at="/chassis/plugs/{i}/watts" label="together up to (W)" number />
			<Field at="/chassis/plugs/{i}/from" label="from, if not the supply" max={120} />
			<button
				class="size-11 rounded border border-line hover:bg-overtint"
				aria-label="Take the {p.kind} plugs away"
				onclick={() => draft.change((x) => x.chassis?.plugs?.splice(i, 1))}>×</button
			>
		</li>
	{/each}
</ul>
<Button color="alternative" class="mt-2" onclick={addPlug}>Count a kind of plug</Button>
