<script lang="ts">
	// The parts of the shelf as a table; where a job is asked for, where each would go in it.
	import { resolve } from '$app/paths';
	import { Button, TableBodyCell, TableBodyRow } from 'flowbite-svelte';
	import { api } from '$lib/api/client';
	import { refused } from '$lib/api/refused';
	import type { ShelfRow } from '$lib/api/types.gen';
	import Mark from '$lib/ui/Mark.svelte';
	import Table from '$lib/ui/Table.svelte';
	import { toasts } from '$lib/ui/toasts.svelte';
	import { who } from '$lib/ui/who.svelte';
	import EditStock from './EditStock.svelte';
	import { type Shelf } from './shelf.svelte';

	let { shelf }: { shelf: Shelf } = $props();
	const list = $derived(shelf.list);
	let editing = $state.raw<ShelfRow | null>(null);

	const heads = $derived([
		{ text: 'Part' },
		...(list.for ? [{ text: `In ${list.for.title}` }] : []),
		{ text: 'Count', class: 'text-right max-sm:hidden' },
		{ text: 'Price', class: 'text-right max-sm:hidden' },
		{ text: 'Condition', class: 'max-sm:hidden' },
		{ text: 'Serial numbers', class: 'max-sm:hidden' },
		...(list.for ? [] : [{ text: 'Used in', class: 'max-md:hidden' }]),
		{ text: list.for ? 'Take it' : 'Correct', hidden: true }
	]);

	const grade = (r: ShelfRow) => {
		if (!r.goes || r.goes.state === 'off' || r.goes.state === 'stopped') return 'off';
		return r.goes.costs.length > 0 ? 'stops' : r.goes.state === 'unknown' ? 'unknown' : 'good';
	};

	async function take(r: ShelfRow) {
		const job = list.for;
		if (!job) return;
		try {
			const stamp = { revision: job.revision, key: crypto.randomUUID(), by: who.name };
			const now = await api.change(job.id, stamp, { do: 'add', part: r.stock.part, new: true });
			shelf.list = { ...list, for: { ...job, revision: now.revision } };
			toasts.add('done', `${r.stock.part.name}: on the mat of ${job.title}`);
		} catch (e) {
			refused(e);
		}
	}
</script>

<Table caption="Parts on the shelf" {heads}>
	{#each list.parts as r (r.stock.part.id)}
		<TableBodyRow data-part={r.stock.part.id}>
			<TableBodyCell>
				<strong>{r.stock.part.name}</strong>
				<span class="text-soft">{r.stock.part.number}</span><br />{r.what}
				<span class="block text-soft sm:hidden"
					>{[`${r.stock.count} there`, r.price, r.stock.condition, ...(r.stock.serials ?? [])]
						.filter(Boolean)
						.join(' · ')}</span
				>
				{#if r.stock.part.source}<br /><span class="text-soft"
						>as seen in {r.stock.part.source}</span
					>{/if}
			</TableBodyCell>
			{#if list.for}
				<TableBodyCell>
					{#if r.goes}
						<span class="flex items-start gap-2">
							<Mark grade={grade(r)} size={18} />
							<span>
								<strong>{r.goes.socket}</strong>
								{r.goes.says}
								{#if r.goes.out}<span class="block text-over">{r.goes.out}</span>{/if}
								{#each r.goes.costs as c (c)}<span class="block text-over">{c}</span>{/each}
							</span>
						</span>
					{:else}<span class="text-soft">no place for it</span>{/if}
				</TableBodyCell>
			{/if}
			<TableBodyCell class="text-right max-sm:hidden">{r.stock.count}</TableBodyCell>
			<TableBodyCell class="text-right max-sm:hidden">{r.price}</TableBodyCell>
			<TableBodyCell class="max-sm:hidden">{r.stock.condition ?? ''}</TableBodyCell>
			<TableBodyCell class="max-sm:hidden">{(r.stock.serials ?? []).join(', ')}</TableBodyCell>
			{#if !list.for}
				<TableBodyCell class="max-md:hidden">
					{#each r.used as j (j.id)}
						<a class="block underline" href={resolve('/jobs/[id]', { id: j.id })}>{j.title}</a>
					{/each}
					{#if r.more}<span class="text-soft">and earlier jobs</span>{/if}
				</TableBodyCell>
			{/if}
			<TableBodyCell class="py-1 text-right">
				{#if list.for}
					<Button
						color="alternative"
						aria-label="{r.stock.count === 0 ? 'None left' : 'Take it'}: {r.stock.part
							.name} for {list.for.title}"
						disabled={r.stock.count === 0}
						onclick={() => take(r)}>{r.stock.count === 0 ? 'None left' : 'Take it'}</Button
					>
				{:else}
					<Button
						color="alternative"
						aria-label="Correct {r.stock.part.name}"
						onclick={() => (editing = r)}>Correct</Button
					>
				{/if}
			</TableBodyCell>
		</TableBodyRow>
	{/each}
</Table>
{#if list.next}
	<Button class="my-4" color="alternative" disabled={shelf.asking} onclick={() => shelf.more()}
		>{shelf.asking ? 'Asking…' : 'Show more'}</Button
	>
{/if}

<EditStock
	row={editing}
	onkept={(r) => {
		shelf.put(r);
		editing = null;
	}}
	onstale={(r) => {
		shelf.put(r);
		editing = r;
	}}
	onleave={() => (editing = null)}
/>
