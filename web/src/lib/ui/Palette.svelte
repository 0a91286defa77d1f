<script lang="ts">
	// Commands by their words, of those that can be given now.
	import { Input, Label } from 'flowbite-svelte';
	import { tick } from 'svelte';
	import { give, given, keys, written, type CommandId } from './commands.svelte';
	import Dialog from './Dialog.svelte';

	let { open = $bindable() }: { open: boolean } = $props();
	let words = $state('');
	const found = $derived(
		given().filter((c) =>
			words
				.toLowerCase()
				.split(/\s+/)
				.every((w) => c.what.toLowerCase().includes(w))
		)
	);

	async function run(id: CommandId | undefined) {
		if (!id) return;
		open = false;
		words = '';
		await tick();
		give(id);
	}
</script>

<Dialog bind:open title="What do you want to do?" size="xs">
	<form
		onsubmit={(e) => {
			e.preventDefault();
			void run(found[0]?.id);
		}}
	>
		<Label for="palette">A word of it</Label>
		<Input id="palette" bind:value={words} autocomplete="off" data-autofocus />
	</form>
	<ul class="mt-2 grid gap-1">
		{#each found as c (c.id)}
			<li>
				<button
					class="flex min-h-11 w-full items-center justify-between rounded px-2 text-left hover:bg-water-1"
					onclick={() => run(c.id)}
				>
					{c.what}
					{#if !keys.off}<kbd class="mono text-soft">{written(keys.of(c.id))}</kbd>{/if}
				</button>
			</li>
		{:else}
			<li class="py-2 text-soft">Nothing here is called that.</li>
		{/each}
	</ul>
</Dialog>
