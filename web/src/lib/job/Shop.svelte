<script lang="ts">
	// From a wish to parts: which of those on the shelf, for how much, and what each
	// step of money more would buy.
	import { Button, Checkbox, Input, Label } from 'flowbite-svelte';
	import { api } from '$lib/api/client';
	import { refusal } from '$lib/api/refused';
	import type { Basket, Progress, Shopping } from '$lib/api/types.gen';
	import Dialog from '$lib/ui/Dialog.svelte';
	import type { Planner } from './planner.svelte';
	import Searching from './Searching.svelte';
	import { useSession } from './session.svelte';
	import { GB, GIB, draftOf } from './wish';

	let { open = $bindable(), planner }: { open: boolean; planner: Planner } = $props();
	const get = useSession();
	const session = $derived(get());
	const uid = $props.id();
	const wish = $derived(draftOf(session.job.wish));
	let memory = $derived(wish.memory);
	let drive = $derived(wish.drive);
	let fast = $derived(wish.fast);
	let data = $state<string | number>('');
	let most = $state<string | number>('');
	let found = $state.raw<Shopping | null>(null);
	let fault = $state('');
	let busy = $state(false);
	let progress = $state.raw<Progress | null>(null);
	let abort = new AbortController();

	async function look(e: SubmitEvent) {
		e.preventDefault();
		abort.abort();
		const mine = (abort = new AbortController());
		busy = true;
		fault = '';
		found = null;
		const amount = (n: string | number, unit: number) => Math.round((Number(n) || 0) * unit);
		const need = {
			memoryBytes: amount(memory, GIB),
			systemBytes: amount(drive, GB),
			dataBytes: amount(data, GB),
			atMostCents: amount(most, 100)
		};
		try {
			const got = await api.shop(
				session.job.id,
				session.view.at,
				{
					...Object.fromEntries(Object.entries(need).filter(([, n]) => n > 0)),
					...(need.systemBytes > 0 && fast && { systemFast: true })
				},
				{ signal: mine.signal, tell: (p) => mine.signal.aborted || (progress = p) }
			);
			if (!mine.signal.aborted) found = got;
		} catch (err) {
			if (err instanceof DOMException) return;
			fault = refusal(err).says;
		} finally {
			if (abort === mine) {
				busy = false;
				progress = null;
			}
		}
	}

	/** The parts become pieces of the job, and the whole is planned. */
	async function take(b: Basket) {
		open = false;
		const ids = b.picks.flatMap((p) => Array<string>(p.count).fill(p.part));
		if (await planner.fetchParts(ids)) await planner.find();
	}
</script>

<Dialog bind:open title="Choose parts from the shelf" size="lg">
	<form class="grid gap-4" onsubmit={look} aria-label="What is wanted">
		<div class="grid gap-4 sm:grid-cols-2">
			<div class="grid gap-1">
				<Label for="{uid}memory">Memory in all, at least (GiB)</Label>
				<Input
					id="{uid}memory"
					type="number"
					min="1"
					max="4096"
					bind:value={memory}
					data-autofocus
				/>
			</div>
			<div class="grid gap-1">
				<Label for="{uid}drive">A system drive of at least (GB)</Label>
				<Input id="{uid}drive" type="number" min="1" max="100000" bind:value={drive} />
			</div>
			<div class="grid gap-1">
				<Label for="{uid}data">Further drives for data, together (GB)</Label>
				<Input id="{uid}data" type="number" min="1" max="1000000" bind:value={data} />
			</div>
			<div class="grid gap-1">
				<Label for="{uid}most">For at most</Label>
				<Input id="{uid}most" type="number" min="0.01" step="0.01" bind:value={most} />
			</div>
		</div>
		<Checkbox bind:checked={fast}>The system drive runs over PCIe</Checkbox>
		<Button type="submit" aria-busy={busy}>Look on the shelf</Button>
	</form>
	{#if progress}<Searching {progress} onstop={() => abort.abort()} />{/if}
	<div aria-live="polite" class="mt-4">
		{#if fault}<p class="text-over">{fault}</p>{/if}
		{#if found}
			<p class="text-soft">{found.says}.</p>
			<ol class="mt-2 border-t border-line" aria-label="Baskets">
				{#each found.baskets as b, i (i)}
					<li class="flex flex-wrap items-start gap-3 border-b border-line py-2">
						<div class="min-w-0 flex-1">
							<p>
								<strong>{b.what || 'nothing is needed'}</strong>{b.price ? `, ${b.price}` : ''}
							</p>
							<p class="text-soft">
								{i === 0 ? '' : 'For that more: '}{b.says.join('; ')}
							</p>
						</div>
						<Button color="alternative" onclick={() => take(b)}>Take basket {i + 1} and plan</Button
						>
					</li>
				{/each}
			</ol>
		{/if}
	</div>
</Dialog>
