<script lang="ts" generics="P extends object">
	// A piece of the page whose code is fetched when it is needed, with a word where it cannot be.
	import type { Component } from 'svelte';
	import Quiet from './Quiet.svelte';

	interface Props {
		load: () => Promise<{ default: Component<P> }>;
		/** What it is given. */
		also?: P;
	}
	let { load, also }: Props = $props();
	let fetched = $derived(load());
	const rest = $derived((also ?? {}) as P);
</script>

{#await fetched}
	<p class="text-soft">Fetching…</p>
{:then { default: Piece }}
	<Piece {...rest} />
{:catch}
	<p>
		This part of the program cannot be fetched: Deep Bay does not answer.
		<Quiet onclick={() => (fetched = load())}>Try again</Quiet>
	</p>
{/await}
