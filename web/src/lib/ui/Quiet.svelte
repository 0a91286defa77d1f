<script lang="ts">
	// The button that stands back: words with a dotted line under them.
	import type { HTMLButtonAttributes } from 'svelte/elements';

	let { children, class: more, ...rest }: HTMLButtonAttributes = $props();
</script>

<button
	type="button"
	class={[
		'min-h-11 shrink-0 rounded px-1 underline decoration-dotted underline-offset-4 hover:bg-water-1 disabled:opacity-60',
		more
	]}
	{...rest}>{@render children?.()}</button
>
