<script lang="ts">
	// Flowbite's Modal with the care it needs: a name, a large close button, no
	// motion where none is wanted.
	import { Modal } from 'flowbite-svelte';
	import type { Snippet } from 'svelte';
	import { prefersReducedMotion } from 'svelte/motion';

	interface Props {
		open: boolean;
		title: string;
		size?: 'xs' | 'sm' | 'md' | 'lg';
		children: Snippet;
		permanent?: boolean;
	}
	let { open = $bindable(), title, size = 'sm', children, permanent = false }: Props = $props();
</script>

<Modal
	bind:open
	{title}
	{size}
	{permanent}
	aria-label={title}
	class="bg-paper text-ink dark:bg-paper dark:text-ink"
	classes={{ close: 'size-11', header: 'text-ink dark:text-ink' }}
	transitionParams={{ duration: prefersReducedMotion.current ? 0 : 100 }}
>
	{@render children()}
</Modal>
