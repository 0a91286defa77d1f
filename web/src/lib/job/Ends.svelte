<script lang="ts">
	// Before a step that erases: the ends of the serial numbers, read off the drives.
	import { Input, Label } from 'flowbite-svelte';

	interface Props {
		/** So many drives. */
		count: number;
		/** The step, for those who hear the page. */
		what: string;
		value: string;
		/** They are typed. */
		onenter: () => void;
		class?: string;
	}
	let { count, what, value = $bindable(), onenter, class: more = '' }: Props = $props();
	const uid = $props.id();
</script>

<form
	class={['max-w-prose', more]}
	onsubmit={(e) => {
		e.preventDefault();
		onenter();
	}}
>
	<Label for="{uid}e">
		{count === 1
			? 'The last four characters of its serial number, read off the drive'
			: `The last four characters of all ${String(count)} serial numbers, read off the drives`}
		<span class="sr-only">: {what}</span>
	</Label>
	<Input id="{uid}e" bind:value autocomplete="off" spellcheck="false" maxlength={200} />
</form>
