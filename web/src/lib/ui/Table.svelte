<script lang="ts">
	// The one table: heads over rows. What is too wide scrolls in its own frame.
	import { Table, TableBody, TableHead, TableHeadCell } from 'flowbite-svelte';
	import type { Snippet } from 'svelte';

	export interface Head {
		readonly text: string;
		readonly class?: string;
		/** For those who hear the page only. */
		readonly hidden?: boolean;
	}
	interface Props {
		/** What the table is of, for those who hear the page. */
		caption: string;
		heads: readonly Head[];
		/** Rows, of Flowbite's TableBodyRow and TableBodyCell. */
		children: Snippet;
		class?: string;
		/** The keyboard comes to the frame, to scroll it. */
		reach?: boolean;
		/** The heads are heard, not seen. */
		bare?: boolean;
	}
	let {
		caption,
		heads,
		children,
		class: className = '',
		reach = false,
		bare = false
	}: Props = $props();
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="overflow-x-auto" role="region" aria-label={caption} tabindex={reach ? 0 : -1}>
	<Table class={className} classes={{ div: 'overflow-visible' }} border={false}>
		<TableHead class={bare ? 'sr-only' : ''}>
			{#each heads as h (h.text)}
				<TableHeadCell scope="col" class={h.class}
					><span class={[h.hidden && 'sr-only']}>{h.text}</span></TableHeadCell
				>
			{/each}
		</TableHead>
		<TableBody>{@render children()}</TableBody>
	</Table>
</div>
