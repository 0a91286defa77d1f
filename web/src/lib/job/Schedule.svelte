<script lang="ts">
	// Where the machine stands, and when it is due.
	import { Button, Input, Label } from 'flowbite-svelte';
	import Dialog from '$lib/ui/Dialog.svelte';
	import Quiet from '$lib/ui/Quiet.svelte';
	import { day } from '$lib/ui/text';
	import { useSession } from './session.svelte';

	const get = useSession();
	const session = $derived(get());
	const uid = $props.id();
	let open = $state(false);
	let stands = $derived(session.job.stands ?? '');
	let due = $derived(session.job.due ?? '');
	const now = $derived(
		[session.job.due && `due ${day(session.job.due)}`, session.job.stands]
			.filter(Boolean)
			.join(' · ')
	);

	async function save(e: SubmitEvent) {
		e.preventDefault();
		if (await session.change({ do: 'schedule', value: stands, text: due })) open = false;
	}
</script>

{#if !session.closed}
	<Quiet class="max-w-60 truncate text-soft max-lg:hidden" onclick={() => (open = true)}
		>{now || 'Due, and where'}</Quiet
	>
{/if}
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
