<script lang="ts">
	// How the draft stands, and what can be done with it as a whole.
	import { Button } from 'flowbite-svelte';
	import { shortcut } from '$lib/ui/commands.svelte';
	import { when } from '$lib/ui/text';
	import { useDraft } from './draft.svelte';

	interface Props {
		busy: boolean;
		fresh: boolean;
		/** When a draft was left in this browser that goes on here. */
		restored?: number;
		ongiveup: () => void;
		onsave: () => void;
	}
	let { busy, fresh, restored, ongiveup, onsave }: Props = $props();
	const get = useDraft();
	const draft = $derived(get());
	const faults = $derived(draft.problems.length);
</script>

<div class="flex flex-wrap items-center gap-2 pt-4 pb-2">
	<h1 class="min-w-0 grow">{draft.sheet.name || 'Unnamed machine'}</h1>
	<p role="status" class={['px-2', faults > 0 && 'text-over']}>
		{#if draft.offline}
			Deep Bay does not answer; the draft is kept here
		{:else if draft.check === null}
			Being judged…
		{:else if faults > 0}
			<strong>{faults} {faults === 1 ? 'fault' : 'faults'}</strong>
		{:else}
			No fault{draft.dirty ? ', not saved yet' : ''}
		{/if}
	</p>
	<Button
		color="alternative"
		disabled={!draft.canUndo}
		onclick={() => draft.undo()}
		{@attach shortcut('undo')}>Undo</Button
	>
	<Button
		color="alternative"
		disabled={!draft.canRedo}
		onclick={() => draft.redo()}
		{@attach shortcut('redo')}>Redo</Button
	>
	{#if draft.dirty || restored !== undefined}<Button color="alternative" onclick={ongiveup}
			>Discard the draft</Button
		>{/if}
	<Button onclick={onsave} aria-busy={busy} disabled={faults > 0 || (!draft.dirty && !fresh)}
		>Save to the shop</Button
	>
</div>
{#if restored !== undefined}
	<p class="border-l-4 border-over bg-overtint px-3 py-2">
		This goes on with the draft of {when(restored)} that was left in this browser.
	</p>
{/if}
