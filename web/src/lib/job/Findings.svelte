<script lang="ts">
	// What the core finds in the machine as it is drawn, the worst first.
	import type { Finding as Judgement } from '$lib/api/types.gen';
	import { useDesk } from './desk.svelte';
	import Finding from './Finding.svelte';

	const desk = useDesk();
	const closed = $derived(desk.session.closed);
	const all = $derived(desk.resolved.findings);
	const loud = $derived(all.filter((f) => !f.quiet));
	const quiet = $derived(all.filter((f) => f.quiet));
</script>

{#snippet list(some: readonly Judgement[])}
	<ul>
		{#each some as f (f.code + f.socket + f.item + f.says)}
			<Finding
				finding={f}
				oncure={closed
					? undefined
					: (c) => desk.change({ do: 'moves', in: desk.shown, moves: c.moves })}
				onaccept={closed || desk.shown === 'found'
					? undefined
					: (yes) =>
							desk.change({
								do: yes ? 'accept' : 'unaccept',
								finding: { code: f.code, socket: f.socket, item: f.item }
							})}
				onform={closed ? undefined : (item) => (desk.correcting = item)}
			/>
		{/each}
	</ul>
{/snippet}

{#if all.length === 0}<p class="py-1">Nothing stands against this.</p>{/if}
{@render list(loud)}
{#if quiet.length > 0}
	<details>
		<summary class="min-h-11 cursor-pointer py-2 text-soft"
			>{quiet.length} as it came, about what nobody touches</summary
		>
		{@render list(quiet)}
	</details>
{/if}
