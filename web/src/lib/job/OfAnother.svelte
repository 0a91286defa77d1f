<script lang="ts">
	// What undo would take back was somebody else's.
	import { Button } from 'flowbite-svelte';
	import Dialog from '$lib/ui/Dialog.svelte';
	import { useSession } from './session.svelte';

	let { open = $bindable() }: { open: boolean } = $props();
	const get = useSession();
	const session = $derived(get());
</script>

<Dialog bind:open permanent title="That was somebody else" size="md">
	<p>{session.ofAnother}.</p>
	<div class="mt-4 flex flex-wrap gap-3">
		<Button onclick={() => (session.ofAnother = '')} data-autofocus>Cancel</Button>
		<Button color="alternative" onclick={() => session.undo(true)}>Take it back all the same</Button
		>
	</div>
</Dialog>
