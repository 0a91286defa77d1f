<script lang="ts">
	// Whose name is written beside what is done here.
	import { Button, Input, Label } from 'flowbite-svelte';
	import Dialog from './Dialog.svelte';
	import { who } from './who.svelte';

	let { open = $bindable() }: { open: boolean } = $props();
	let name = $state(who.name);

	function set(e: SubmitEvent) {
		e.preventDefault();
		who.set(name);
		open = false;
	}
</script>

<Dialog bind:open title="Who is at the bench?" size="xs">
	<form class="grid gap-3" onsubmit={set}>
		<Label for="who">Name written beside what is done</Label>
		<Input id="who" bind:value={name} maxlength={80} autocomplete="off" data-autofocus />
		<Button type="submit">Save</Button>
	</form>
</Dialog>
