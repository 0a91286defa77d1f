<script lang="ts">
	// One panel of several: a line that says what is in it and how it stands, open at a press.
	import { AccordionItem } from 'flowbite-svelte';
	import type { Snippet } from 'svelte';
	import { useDesk, type PanelId } from './desk.svelte';

	interface Props {
		id: PanelId;
		title: string;
		/** How it stands, in a few words. */
		says?: string;
		children: Snippet;
	}
	let { id, title, says = '', children }: Props = $props();
	const desk = useDesk();
</script>

<AccordionItem
	bind:open={() => desk.panel === id, (yes) => desk.open(id, yes)}
	transitionParams={{ duration: 0 }}
>
	{#snippet header()}
		<span class="min-w-0 leading-tight" data-panel={id}
			><span class="font-semibold text-ink">{title}</span>
			<span class="font-normal text-soft">{says}</span></span
		>
	{/snippet}
	<div data-testid="panel-{id}">{@render children()}</div>
</AccordionItem>
