<script lang="ts">
	// One fact of the sheet: it knows its place in the file, so that a fault named
	// there shows here and can be gone to.
	import { Input, Select } from 'flowbite-svelte';
	import { withValue, type Choice } from './choices';
	import { useDraft } from './draft.svelte';

	interface Props {
		at: string;
		label: string;
		/** A pick list; without one it is typed. */
		choices?: readonly Choice[];
		number?: boolean;
		/** Several names, typed with blanks or commas between them. */
		names?: boolean;
		/** In a table the column's head is the label that is seen. */
		bare?: boolean;
		placeholder?: string;
		max?: number;
		onset?: (value: unknown) => void;
	}
	let {
		at,
		label,
		choices,
		number = false,
		names = false,
		bare = false,
		placeholder,
		max = 300,
		onset
	}: Props = $props();
	const get = useDraft();
	const draft = $derived(get());
	const uid = $props.id();
	const value = $derived(draft.get(at));
	const faults = $derived(draft.at(at));
	const all = $derived(withValue(choices ?? [], value));
	const items = $derived(all.map((c, i) => ({ value: i, name: c.name })));
	const chosen = $derived(all.findIndex((c) => JSON.stringify(c.value) === JSON.stringify(value)));

	// What stands in the field: while it is typed, answers of the server that arrive
	// leave it alone.
	let text = $derived(
		value === undefined ? '' : Array.isArray(value) ? value.join(', ') : String(value)
	);

	function put(v: unknown) {
		if (onset) onset(v);
		else draft.set(at, v);
	}
	function typed(words: string) {
		const t = words.trim();
		if (names) return put(t === '' ? undefined : t.split(/[\s,]+/));
		if (!number) return put(t === '' ? undefined : t);
		const n = Number(t.replace(',', '.'));
		put(t === '' ? undefined : Number.isFinite(n) ? n : t);
	}
	const shared = $derived({
		'aria-label': bare ? label : undefined,
		'aria-invalid': faults.length > 0 ? ('true' as const) : undefined,
		'aria-describedby': faults.length > 0 ? uid + 'fault' : undefined,
		'data-at': at
	});
</script>

<div class={bare ? (choices || number ? 'min-w-14' : 'min-w-22') : 'grid content-start gap-1'}>
	{#if !bare}<label for={uid}>{label}</label>{/if}
	{#if choices}
		<Select
			id={uid}
			value={chosen}
			placeholder=""
			{items}
			{...shared}
			classes={{
				select: [
					bare && 'field-sizing-content min-w-16 bg-position-[right_0.4rem_center] pr-7 pl-2',
					faults.length > 0 && 'border-2 border-over'
				]
			}}
			onchange={(e) => put(all[Number(e.currentTarget.value)]?.value)}
		/>
	{:else}
		<Input
			id={uid}
			bind:value={text}
			{placeholder}
			inputmode={number ? 'decimal' : undefined}
			maxlength={max}
			autocomplete="off"
			{...shared}
			classes={{
				input: [bare && 'px-2', faults.length > 0 && 'border-2 border-over']
			}}
			onchange={() => typed(text)}
		/>
	{/if}
	{#if faults.length > 0}
		<p id="{uid}fault" class="max-w-64 text-over">
			{#each faults as f (f.says)}{f.says}{f.cure ? '; ' + f.cure : ''}
			{/each}
		</p>
	{/if}
</div>
