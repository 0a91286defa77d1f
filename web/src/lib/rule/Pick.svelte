<script lang="ts">
	// One of a few, with the answer that nobody knows.
	import { Label, Select } from 'flowbite-svelte';

	interface Props {
		id: string;
		label: string;
		items: { value: string; name: string }[];
		value: string;
	}
	let { id, label, items, value = $bindable() }: Props = $props();
</script>

<div class="w-28">
	<Label for={id}>{label}</Label>
	<Select {id} bind:value placeholder="not known" {items} />
</div>
