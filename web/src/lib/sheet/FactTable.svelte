<script lang="ts" module>
	import type { Choice } from './choices';

	export interface Column {
		readonly head: string;
		/** The field of the entry, a pointer from it: "/gen", "/uplink/to". */
		readonly field: string;
		readonly choices?: readonly Choice[];
		readonly number?: boolean;
		/** Several names, typed with blanks or commas between them. */
		readonly names?: boolean;
		/** Rarely asked: it stands in the entry's own form, below the table. */
		readonly rare?: boolean;
	}
</script>

<script lang="ts">
	// Entries of one list in rows, their facts in columns. All can be made like one,
	// for boards where the sockets of a kind are alike.
	import { Button, TableBodyCell, TableBodyRow } from 'flowbite-svelte';
	import { useDraft, type List } from './draft.svelte';
	import Table from '$lib/ui/Table.svelte';
	import Field from './Field.svelte';
	import { write } from './pointer';

	interface Props {
		caption: string;
		list: List;
		/** Which entries, by their place in the list. */
		rows: readonly number[];
		columns: readonly Column[];
		/** What is added by the button below, if something can be. */
		add?: string;
		onadd?: () => void;
		chosen?: string;
		onchoose?: (id: string) => void;
		name?: string;
		/** Each entry is a thing of its own: nobody makes all like one. */
		each?: boolean;
	}
	let {
		caption,
		list,
		rows,
		columns,
		add,
		onadd,
		chosen,
		onchoose,
		name = 'name',
		each = false
	}: Props = $props();
	const get = useDraft();
	const draft = $derived(get());
	const id = (i: number) => String(draft.get(`/${list}/${i}/id`));
	const place = (i: number, c: Column) => `/${list}/${i}${c.field}`;

	const wide = $derived(columns.filter((c) => !c.rare));
	const rare = $derived(columns.filter((c) => c.rare));
	/** The entry whose own form is shown. */
	let picked = $state<string>();
	const own = $derived(
		rows.find((i) => id(i) === chosen) ?? rows.find((i) => id(i) === picked) ?? rows[0]
	);

	/** What the columns ask of one entry, for all of them. */
	function alike(from: number) {
		draft.change(() => {
			for (const c of columns)
				for (const i of rows)
					if (i !== from)
						write(
							draft.sheet,
							place(i, c),
							structuredClone($state.snapshot(draft.get(place(from, c))))
						);
		});
	}
</script>

{#if rows.length > 0}
	<Table
		{caption}
		reach
		heads={[
			{ text: name },
			...wide.map((c) => ({ text: c.head, class: 'max-w-24' })),
			{ text: 'More', hidden: true }
		]}
	>
		{#each rows as i (i)}
			<TableBodyRow
				class={['border-0', chosen === id(i) && 'bg-overtint dark:bg-overtint']}
				onfocusin={() => {
					picked = id(i);
					onchoose?.(id(i));
				}}
			>
				<th scope="row" class="py-0.5 pr-2 text-left font-normal">
					<Field
						at="/{list}/{i}/id"
						label="Name of {id(i)}"
						bare
						max={40}
						onset={(v) => v && draft.rename(list, i, String(v))}
					/>
				</th>
				{#each wide as c (c.field)}
					<TableBodyCell class="py-0.5 pr-2">
						<Field
							at={place(i, c)}
							label="{c.head} of {id(i)}"
							bare
							choices={c.choices}
							number={c.number}
							names={c.names}
						/>
					</TableBodyCell>
				{/each}
				<TableBodyCell class="flex gap-1 py-0.5">
					{#if rows.length > 1 && !each}
						<button
							class="size-11 shrink-0 rounded border border-line hover:bg-water-1"
							aria-label="Make all like {id(i)}"
							title="make all like {id(i)}"
							onclick={() => alike(i)}
						>
							<svg
								viewBox="0 0 20 20"
								class="mx-auto size-5 fill-none stroke-current stroke-2"
								aria-hidden="true"><path d="M4 5h12M10 2v6M4 11h12M4 16h12" /></svg
							>
						</button>
					{/if}
					<button
						class="size-11 rounded border border-line hover:bg-overtint"
						aria-label="Take {id(i)} off the sheet"
						onclick={() => draft.remove(list, i)}
					>
						<svg
							viewBox="0 0 20 20"
							class="mx-auto size-5 fill-none stroke-current stroke-2"
							aria-hidden="true"><path d="M5 5l10 10M15 5L5 15" /></svg
						>
					</button>
				</TableBodyCell>
			</TableBodyRow>
		{/each}
	</Table>
	{#if rare.length > 0 && own !== undefined}
		<fieldset class="mt-2 border-l-4 border-water-4 pl-3">
			<legend class="font-semibold">More of {id(own)}</legend>
			<div class="grid grid-cols-2 gap-2 sm:grid-cols-3">
				{#each rare as c (c.field)}
					<Field
						at={place(own, c)}
						label={c.head}
						choices={c.choices}
						number={c.number}
						names={c.names}
					/>
				{/each}
			</div>
		</fieldset>
	{/if}
{/if}
{#if onadd}
	<Button color="alternative" class="mt-2" onclick={onadd}>{add}</Button>
{/if}
