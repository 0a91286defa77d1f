<script lang="ts" generics="P extends { open: boolean }">
	// A dialog whose code is fetched when it is first opened; from then on it stays.
	import type { Component } from 'svelte';
	import { toasts } from './toasts.svelte';

	interface Props {
		open: boolean;
		load: () => Promise<{ default: Component<P, object, 'open'> }>;
		/** What else it is given. */
		also?: Omit<P, 'open'>;
	}
	let { open = $bindable(), load, also }: Props = $props();
	let Dialog = $state.raw<Component<P, object, 'open'>>();
	$effect(() => {
		if (!open || Dialog) return;
		load()
			.then((m) => (Dialog = m.default))
			.catch(() => {
				open = false;
				toasts.add('error', 'This part of the program cannot be fetched: Deep Bay does not answer');
			});
	});
	const rest = $derived((also ?? {}) as P);
</script>

{#if Dialog}<Dialog {...rest} bind:open />{/if}
