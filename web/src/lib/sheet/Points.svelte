<script lang="ts">
	// Points on the board, typed as "10,20 90,20": for drawings.
	import { Input } from 'flowbite-svelte';
	import type { Point } from '$lib/api/types.gen';
	import { useDraft } from './draft.svelte';

	interface Props {
		at: string;
		label: string;
		/** One point, not a list of them. */
		single?: boolean;
	}
	let { at, label, single = false }: Props = $props();
	const get = useDraft();
	const draft = $derived(get());
	const uid = $props.id();
	const value = $derived(draft.get(at) as Point | Point[] | undefined);
	const faults = $derived(draft.at(at));
	let text = $derived(
		[value ?? []]
			.flat()
			.map((p) => `${p.xMM},${p.yMM}`)
			.join(' ')
	);
	let wrong = $state(false);

	function typed() {
		const points = text
			.trim()
			.split(/\s+/)
			.filter(Boolean)
			.map((w) => w.split(',').map(Number));
		wrong = points.some((p) => p.length !== 2 || p.some((n) => !Number.isFinite(n)));
		if (wrong) return;
		const list = points.map(([x, y]) => ({ xMM: x!, yMM: y! }));
		draft.set(at, list.length === 0 ? undefined : single ? list[0] : list);
	}
</script>

<div class="grid content-start gap-1">
	<label for={uid}>{label}</label>
	<Input
		id={uid}
		bind:value={text}
		autocomplete="off"
		data-at={at}
		aria-invalid={wrong || faults.length > 0 ? 'true' : undefined}
		aria-describedby={wrong || faults.length > 0 ? uid + 'fault' : undefined}
		onchange={typed}
	/>
	{#if wrong || faults.length > 0}
		<p id="{uid}fault" class="text-over">
			{wrong
				? 'write points as 10,20 with a blank between them'
				: faults.map((f) => f.says).join('; ')}
		</p>
	{/if}
</div>
