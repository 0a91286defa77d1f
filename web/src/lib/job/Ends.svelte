<script lang="ts">
	// Before a step that erases: what tells each drive from all others, typed.
	import { Input, Label } from 'flowbite-svelte';

	interface Props {
		/** What is to be typed, a drive each. */
		asks: readonly string[];
		/** The step, for those who hear the page. */
		what: string;
		value: string;
		/** They are typed. */
		onenter: () => void;
		class?: string;
	}
	let { asks, what, value = $bindable(), onenter, class: more = '' }: Props = $props();
	const uid = $props.id();
</script>

<form
	class={['max-w-prose', more]}
	data-testid="asks"
	onsubmit={(e) => {
		e.preventDefault();
		onenter();
	}}
>
	<Label for="{uid}e">
		{#each asks as ask (ask)}<span class="block">{ask}</span>{/each}
		<span class="sr-only">: {what}</span>
	</Label>
	<Input id="{uid}e" bind:value autocomplete="off" spellcheck="false" maxlength={400} />
</form>
