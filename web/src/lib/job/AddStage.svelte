<script lang="ts">
	// One more stage of the job.
	import { Button, Input, Label } from 'flowbite-svelte';
	import Dialog from '$lib/ui/Dialog.svelte';
	import { useSession } from './session.svelte';

	let { open = $bindable() }: { open: boolean } = $props();
	const get = useSession();
	const session = $derived(get());
	const stages = $derived(session.view.stages);
	const uid = $props.id();
	let name = $state('');
	let first = $state('');

	async function add(e: SubmitEvent) {
		e.preventDefault();
		const job = session;
		if (!(await job.change({ do: 'add stage', text: name, value: first }))) return;
		open = false;
		name = first = '';
		await job.look(job.view.stages.length - 1 - job.view.stages.findIndex((s) => s.at === 0));
	}
</script>

<Dialog bind:open title="One more stage">
	<form class="grid gap-3" onsubmit={add} aria-label="One more stage">
		<p>
			A drive in a box outside now and inside after the copy; a disk that stays unplugged until the
			system is installed. Each stage has its own plan, order and readings, and begins where the one
			before it ended.
		</p>
		{#if stages.length === 0}
			<div>
				<Label for="{uid}f">What the present stage is for</Label>
				<Input id="{uid}f" bind:value={first} required maxlength={120} autocomplete="off" />
			</div>
		{/if}
		<div>
			<Label for="{uid}n">What the next one is for</Label>
			<Input id="{uid}n" bind:value={name} required maxlength={120} autocomplete="off" />
		</div>
		<div class="flex gap-3">
			<Button type="submit" aria-busy={session.busy}>Add it</Button>
			<Button color="alternative" onclick={() => (open = false)}>Cancel</Button>
		</div>
	</form>
</Dialog>
