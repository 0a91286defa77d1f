<script lang="ts">
	// What one looks at while a sheet is written: its board as written, and the manual.
	import type { SheetPicture } from '$lib/api/types.gen';
	import { useDraft } from './draft.svelte';
	import DraftBoard from './DraftBoard.svelte';
	import Pages from './Pages.svelte';

	interface Props {
		chosen: string | undefined;
		/** Absent before the sheet is kept. */
		pages: readonly SheetPicture[] | null;
	}
	let { chosen = $bindable(), pages }: Props = $props();
	const get = useDraft();
	const draft = $derived(get());
	let shown = $state<string>();
</script>

<div class="min-w-0 gap-4 max-lg:contents lg:sticky lg:top-2 lg:grid">
	<!-- A page that is read takes the board's place, beside the tables. -->
	{#if !shown}<div class="min-w-0 max-lg:max-w-md"><DraftBoard bind:chosen /></div>{/if}
	<div class="min-w-0 max-lg:order-1">
		{#if pages}
			<Pages sheet={draft.sheet.id} {pages} bind:shown />
		{:else}
			<p class="text-soft">Pages of the manual can be kept beside the sheet once it is saved.</p>
		{/if}
	</div>
</div>
