<script lang="ts">
	// A button that asks for one file and hands it on.
	import { Button } from 'flowbite-svelte';
	import type { Snippet } from 'svelte';

	interface Props {
		/** What the file is, for those who hear the page. */
		label: string;
		accept: string;
		ontake: (file: File) => Promise<void>;
		disabled?: boolean;
		children: Snippet;
	}
	let { label, accept, ontake, disabled = false, children }: Props = $props();
	let files: HTMLInputElement;

	async function take() {
		const file = files.files?.[0];
		if (!file) return;
		try {
			await ontake(file);
		} finally {
			files.value = ''; // the same file can be chosen again
		}
	}
</script>

<Button color="alternative" {disabled} onclick={() => files.click()}>{@render children()}</Button>
<input bind:this={files} type="file" {accept} class="hidden" onchange={take} aria-label={label} />
