<script lang="ts">
	// What lies beside the machine: pick it up here, bring back here what comes out.
	import { Button } from 'flowbite-svelte';
	import type { Item } from '$lib/api/types.gen';
	import { shortcut } from '$lib/ui/commands.svelte';
	import { useDesk } from './desk.svelte';

	const desk = useDesk();
	const session = $derived(desk.session);
	const lying = $derived(session.onMat(desk.shown));
	/** Leads, brackets and screws go into no socket: they are at hand or not. */
	const loose = $derived(lying.filter((x) => !session.partOf(x.id)?.fitting));
	const atHand = $derived(lying.filter((x) => session.partOf(x.id)?.fitting));

	/** It lies in the plan of a later stage. */
	const backLater = (item: string) =>
		session.job.later?.some((l) => l.planned.placements.some((p) => p.item === item)) ?? false;
</script>

{#snippet tool(label: string, d: string, press: () => unknown)}
	<button
		class="size-11 rounded-sm border border-line hover:bg-water-1"
		aria-label={label}
		disabled={session.closed}
		onclick={press}
	>
		<svg viewBox="0 0 20 20" class="mx-auto size-5 fill-none stroke-current stroke-2"
			><path {d} /></svg
		>
	</button>
{/snippet}
{#snippet tools(item: Item)}
	{@const called = `${desk.name(item.id) ?? ''} ${item.serial ?? ''}`}
	{@render tool(
		`Correct ${called}`,
		'M4 16l1-4L14 3l3 3-9 9zM12 5l3 3',
		() => (desk.correcting = item.id)
	)}
	{@render tool(`Remove ${called} from the job`, 'M5 5l10 10M15 5L5 15', () =>
		desk.change({ do: 'remove', item: item.id })
	)}
{/snippet}

<section aria-labelledby="mat-h">
	<div class="flex items-center justify-between">
		<h2 id="mat-h" class="max-lg:sr-only">
			{desk.shown === 'planned' ? 'On the mat' : 'Not in the machine'}
		</h2>
		<Button
			color="alternative"
			disabled={session.closed}
			onclick={() => (desk.dialog = 'add')}
			{@attach shortcut('add')}>Add a part</Button
		>
	</div>
	{#if loose.length === 0}
		<p class="py-1 text-soft">
			{session.job.items.length === 0
				? 'No parts yet: add what is in the machine, then what is to be fitted.'
				: 'Everything has its place.'}
		</p>
	{/if}
	<ul class="mt-1 grid gap-1">
		{#each loose as item (item.id)}
			<li class="grid grid-cols-[minmax(0,1fr)_auto_auto] gap-1">
				<button
					class={[
						'min-h-11 grow rounded-sm border px-3 py-1 text-left leading-tight',
						desk.hand.item === item.id
							? 'border-over bg-overtint'
							: 'border-line bg-land hover:border-ink'
					]}
					aria-pressed={desk.hand.item === item.id}
					disabled={session.closed}
					data-item={item.id}
					onclick={() => desk.toggle(item.id)}
					{@attach desk.hand.draggable(item.id)}
				>
					<strong>{desk.name(item.id)}</strong>
					<span class="text-soft">{item.serial}</span>
					{#if backLater(item.id)}<span class="text-over">· comes back later</span>
					{:else if !item.new && desk.shown === 'planned'}<span class="text-soft">· out</span>{/if}
				</button>
				{@render tools(item)}
			</li>
		{/each}
		{#each atHand as item (item.id)}
			<li class="grid grid-cols-[minmax(0,1fr)_auto_auto] gap-1">
				<p class="min-h-11 grow border-l-4 border-line px-3 py-1 leading-tight">
					<strong>{desk.name(item.id)}</strong> <span class="text-soft">at hand</span>
				</p>
				{@render tools(item)}
			</li>
		{/each}
	</ul>
</section>
