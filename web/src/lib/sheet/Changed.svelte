<script lang="ts">
	// Somebody else saved the sheet meanwhile: which of the two is to be.
	import { Button } from 'flowbite-svelte';
	import type { ProblemDoc } from '$lib/api/types.gen';
	import Dialog from '$lib/ui/Dialog.svelte';

	interface Props {
		open: boolean;
		conflict: ProblemDoc | null;
		onsettle: (keepMine: boolean) => unknown;
	}
	let { open = $bindable(), conflict, onsettle }: Props = $props();
</script>

<Dialog bind:open title="Changed meanwhile" permanent>
	{#if conflict?.sheet}
		<p>{conflict.detail}. The other version has:</p>
		<ul class="my-2 list-disc pl-5">
			{#each conflict.sheet.differs as d (d)}<li>{d}</li>{/each}
		</ul>
		<div class="flex flex-wrap gap-3">
			<Button onclick={() => onsettle(true)}>Save mine over it</Button>
			<Button color="alternative" onclick={() => onsettle(false)}>Take the other one</Button>
		</div>
	{/if}
</Dialog>
