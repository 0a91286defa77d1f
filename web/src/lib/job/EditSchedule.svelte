<script lang="ts">
	// Where the machine stands, and when it is due, to be changed.
	import { Button, Input, Label } from 'flowbite-svelte';
	import Dialog from '$lib/ui/Dialog.svelte';
	import { useSession } from './session.svelte';

	let { open = $bindable() }: { open: boolean } = $props();
	const get = useSession();
	const session = $derived(get());
	const uid = $props.id();
	let stands = $derived(session.job.stands ?? '');
	let due = $derived(session.job.due ?? '');

	async function save(e: SubmitEvent) {
		e.preventDefault();
		if (await session.change({ do: 'schedule', value: stands, text: due })) open = false;
	}
</script>

<Dialog bind:open title="Due, and where it stands" size="xs">
	<form class="grid gap-3" onsubmit={save} aria-label="Due, and where it stands">
		<div class="grid gap-1">
			<Label for="{uid}d">Due on</Label>
			<Input id="{uid}d" type="date" bind:value={due} data-autofocus />
		</div>
		<div class="grid gap-1">
			<Label for="{uid}s">The machine stands at</Label>
			<Input id="{uid}s" bind:value={stands} maxlength={60} autocomplete="off" />
		</div>
		<div class="flex gap-3">
			<Button type="submit" aria-busy={session.busy}>Save</Button>
			<Button color="alternative" onclick={() => (open = false)}>Cancel</Button>
		</div>
	</form>
</Dialog>
