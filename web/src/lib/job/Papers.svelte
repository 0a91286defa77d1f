<script lang="ts">
	// What goes with the machine on paper: until when new parts can go back, what became of old ones,
	// and that the owner agreed.
	import { Button, Input, Label, Select } from 'flowbite-svelte';
	import Dialog from '$lib/ui/Dialog.svelte';
	import Quiet from '$lib/ui/Quiet.svelte';
	import { useSession } from './session.svelte';

	let { open = $bindable() }: { open: boolean } = $props();
	const uid = $props.id();
	const get = useSession();
	const session = $derived(get());
	const r = $derived(session.view.report);
	const fresh = $derived(r.fitted.filter((f) => session.item(f.item)?.new));
	let owner = $state('');
	const fates = [
		{ value: '', name: 'nobody said' },
		{ value: 'owner', name: 'with its owner' },
		{ value: 'shelf', name: 'on the shop’s shelf' },
		{ value: 'returned', name: 'sent back' },
		{ value: 'recycled', name: 'with a recycler' }
	];
</script>

<Dialog bind:open title="Papers" size="lg">
	<div class="grid gap-5">
		{#if fresh.length > 0}
			<fieldset class="grid gap-2">
				<legend class="font-semibold">New parts</legend>
				{#each fresh as f (f.item)}
					<div class="grid items-end gap-3 sm:grid-cols-[1fr_11rem_11rem]">
						<p class="pb-2">{f.name} <span class="text-soft">{f.serial}</span></p>
						<div>
							<Label for="{uid}w{f.item}">Warranty until</Label>
							<Input
								id="{uid}w{f.item}"
								type="date"
								value={f.warranty ?? ''}
								onchange={(e) =>
									session.change({
										do: 'papers',
										item: f.item,
										value: e.currentTarget.value,
										text: f.returns ?? ''
									})}
							/>
						</div>
						<div>
							<Label for="{uid}r{f.item}">Can be returned until</Label>
							<Input
								id="{uid}r{f.item}"
								type="date"
								value={f.returns ?? ''}
								onchange={(e) =>
									session.change({
										do: 'papers',
										item: f.item,
										value: f.warranty ?? '',
										text: e.currentTarget.value
									})}
							/>
						</div>
					</div>
				{/each}
			</fieldset>
		{/if}
		{#if r.removed.length > 0}
			<fieldset class="grid gap-2">
				<legend class="font-semibold">Old parts</legend>
				{#each r.removed as f (f.item)}
					<div class="grid items-end gap-3 sm:grid-cols-[1fr_16rem]">
						<Label for="{uid}f{f.item}" class="pb-2"
							>{f.name} <span class="text-soft">{f.serial}</span></Label
						>
						<Select
							id="{uid}f{f.item}"
							value={f.fate ?? ''}
							placeholder=""
							items={fates}
							onchange={(e) =>
								session.change({ do: 'fate', item: f.item, value: e.currentTarget.value })}
						/>
					</div>
				{/each}
				<p class="text-soft">
					A drive that may still hold data goes to its owner, or is wiped first.
				</p>
			</fieldset>
		{/if}
		<form
			class="flex flex-wrap items-end gap-3"
			onsubmit={(e) => {
				e.preventDefault();
				void session.change({ do: 'agree', text: owner });
			}}
		>
			{#if session.job.agreed}
				<p>
					{session.job.agreed.owner} agreed to what was done.
					<Quiet onclick={() => session.change({ do: 'disagree' })}>not after all</Quiet>
				</p>
			{:else}
				<div class="grow">
					<Label for="{uid}o">Who agreed to what was done</Label>
					<Input id="{uid}o" bind:value={owner} placeholder={session.job.owner ?? ''} />
				</div>
				<Button type="submit" color="alternative">The owner agreed</Button>
			{/if}
		</form>
		<div><Button color="alternative" onclick={() => (open = false)}>Close</Button></div>
	</div>
</Dialog>
