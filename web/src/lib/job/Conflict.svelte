<script lang="ts">
	// Somebody else changed the job first. It cannot be dismissed: it stays until it is settled.
	import { Button } from 'flowbite-svelte';
	import Dialog from '$lib/ui/Dialog.svelte';
	import { when } from '$lib/ui/text';
	import { useSession } from './session.svelte';

	let { open = $bindable() }: { open: boolean } = $props();
	const get = useSession();
	const session = $derived(get());
</script>

<Dialog bind:open permanent title="Somebody else changed this job" size="md">
	{#if session.conflict}
		<p>Your change was not applied. Since you last saw the job:</p>
		<ul class="my-2 border-l-4 border-line pl-3">
			{#each session.conflict.missed ?? [] as m (m.revision)}
				<li><strong>{m.by}</strong>, {when(m.at)}: {m.says}</li>
			{/each}
		</ul>
		{#if session.conflict.yours}
			<p>
				Your change, on top of that: <strong>{session.conflict.would}</strong>
			</p>
		{/if}
		<div class="mt-4 flex flex-wrap gap-3">
			<Button onclick={() => session.settle(false)} data-autofocus>Take theirs, drop mine</Button>
			{#if session.conflict.yours}
				<Button color="alternative" onclick={() => session.settle(true)}
					>Put mine on top of theirs</Button
				>
			{/if}
		</div>
	{/if}
</Dialog>
