<script lang="ts">
	import { goto } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { Button, Checkbox, Input, Label, Select, Textarea } from 'flowbite-svelte';
	import { api, ApiError } from '$lib/api/client';
	import type { Sheet, Wish } from '$lib/api/types.gen';
	import Dialog from '$lib/ui/Dialog.svelte';
	import { who } from '$lib/ui/who.svelte';

	let { open = $bindable(), sheets }: { open: boolean; sheets: readonly Sheet[] } = $props();
	const uid = $props.id();
	let title = $state('');
	let tag = $state('');
	let owner = $state('');
	let sheet = $state('');
	let text = $state('');
	let memory = $state('');
	let drive = $state('');
	let fast = $state(true);
	let untouched = $state('');
	let backedUp = $state('');
	let fields = $state.raw<Record<string, string>>({});
	let fault = $state('');
	let key = crypto.randomUUID();
	let busy = $state(false);

	const number = (s: string | number) => Number(s) || 0;

	async function start(e: SubmitEvent) {
		e.preventDefault();
		if (busy) return;
		busy = true;
		const wish: Wish = { text };
		// The two fields are typed in units that the labels name: binary for memory, decimal for drives.
		if (number(memory) > 0) wish.memoryBytes = number(memory) * 2 ** 30;
		if (number(drive) > 0)
			Object.assign(wish, { systemBytes: number(drive) * 1e9, systemFast: fast });
		if (untouched) wish.untouched = untouched;
		if (backedUp) wish.backedUp = backedUp;
		try {
			const made = await api.create({ title, tag, owner, sheet, wish, by: who.name, key });
			open = false;
			key = crypto.randomUUID();
			await goto(resolve('/jobs/[id]/fit', { id: made.view.job.id }));
		} catch (err) {
			if (!(err instanceof ApiError)) throw err;
			fields = Object.fromEntries(
				(err.problem.errors ?? []).map((x) => [x.pointer, x.says + (x.cure ? '; ' + x.cure : '')])
			);
			fault = err.message;
		} finally {
			busy = false;
		}
	}
</script>

{#snippet hint(pointer: string)}
	{#if fields[pointer]}<p id="{uid}{pointer}" class="text-over">{fields[pointer]}</p>{/if}
{/snippet}

<Dialog bind:open title="New job" size="md">
	<form onsubmit={start} class="grid gap-4 text-base" aria-label="New job">
		<div class="grid gap-4 sm:grid-cols-2">
			<div class="grid gap-1">
				<Label for="{uid}sheet">Machine sheet</Label>
				<Select
					id="{uid}sheet"
					bind:value={sheet}
					required
					placeholder="Choose a sheet"
					items={sheets.map((s) => ({ value: s.id, name: `${s.name} (${s.class})` }))}
					data-autofocus
				/>
				{@render hint('/sheet')}
			</div>
			<div class="grid gap-1">
				<Label for="{uid}title">What the owner calls the machine</Label>
				<Input id="{uid}title" bind:value={title} required maxlength={160} />
				{@render hint('/title')}
			</div>
			<div class="grid gap-1">
				<Label for="{uid}owner">Owner</Label>
				<Input id="{uid}owner" bind:value={owner} maxlength={120} />
			</div>
			<div class="grid gap-1">
				<Label for="{uid}tag">Tag or serial number</Label>
				<Input id="{uid}tag" bind:value={tag} maxlength={60} />
			</div>
		</div>
		<div class="grid gap-1">
			<Label for="{uid}wish">The wish, in the owner's words</Label>
			<Textarea id="{uid}wish" bind:value={text} rows={2} maxlength={1000} class="w-full" />
		</div>
		<div class="grid gap-4 sm:grid-cols-2">
			<div class="grid gap-1">
				<Label for="{uid}memory">Memory of at least (GiB)</Label>
				<Input id="{uid}memory" type="number" min="1" max="4096" bind:value={memory} />
				{@render hint('/wish/memoryBytes')}
			</div>
			<div class="grid gap-1">
				<Label for="{uid}drive">System drive of at least (GB)</Label>
				<Input id="{uid}drive" type="number" min="1" max="100000" bind:value={drive} />
				{@render hint('/wish/systemBytes')}
			</div>
			<div class="grid gap-1">
				<Label for="{uid}untouched">What must not be touched</Label>
				<Input id="{uid}untouched" bind:value={untouched} maxlength={1000} />
			</div>
			<div class="grid gap-1">
				<Label for="{uid}backup">Where the backup is</Label>
				<Input id="{uid}backup" bind:value={backedUp} maxlength={300} />
			</div>
		</div>
		<Checkbox bind:checked={fast} class="min-h-11 text-base"
			>The system drive runs over PCIe</Checkbox
		>
		{#if fault}<p role="alert" class="text-over">{fault}</p>{/if}
		<div class="flex gap-3">
			<Button type="submit" aria-busy={busy}>Start the job</Button>
			<Button color="alternative" onclick={() => (open = false)}>Leave it</Button>
		</div>
	</form>
</Dialog>
