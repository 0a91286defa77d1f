<script lang="ts">
	import { Button } from 'flowbite-svelte';
	import Dialog from '$lib/ui/Dialog.svelte';
	import { useSession } from './session.svelte';
	import { draftOf, wishOf } from './wish';
	import WishFields from './WishFields.svelte';

	let { open = $bindable() }: { open: boolean } = $props();
	const get = useSession();
	const session = $derived(get());
	let draft = $derived(draftOf(session.job.wish));

	async function keep(e: SubmitEvent) {
		e.preventDefault();
		if (await session.change({ do: 'wish', wish: wishOf(draft, session.job.wish) })) open = false;
	}
</script>

<Dialog bind:open title="The wish" size="md">
	<form class="grid gap-4" onsubmit={keep} aria-label="The wish">
		<WishFields bind:draft />
		<div class="flex gap-3">
			<Button type="submit" aria-busy={session.busy}>Save</Button>
			<Button color="alternative" onclick={() => (open = false)}>Cancel</Button>
		</div>
	</form>
</Dialog>
