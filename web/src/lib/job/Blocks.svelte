<script lang="ts">
	// What is to be answered before hands begin, besides what the rules of fit stop.
	import { Button } from 'flowbite-svelte';
	import { useDesk } from './desk.svelte';

	const desk = useDesk();
	const view = $derived(desk.session.view);
</script>

{#if view.blocks.length > 0 && view.order.length > 0 && !view.planned.findings.some((f) => f.severity === 'stops')}
	<section aria-labelledby="blocks-h" class="border-l-4 border-over bg-overtint px-3 py-2">
		<h2 id="blocks-h">To be answered first</h2>
		<ul class="grid gap-2">
			{#each view.blocks as b (b.says)}
				<li>
					{b.says}
					{#if b.moves?.length}
						<Button
							color="alternative"
							aria-label="Set it: {b.says}"
							onclick={() => desk.change({ do: 'moves', moves: b.moves })}>Set it</Button
						>
					{:else if b.start}
						<Button
							color="alternative"
							aria-label="Say it: {b.says}"
							onclick={() => (desk.panel = 'after')}>Say it</Button
						>
					{/if}
				</li>
			{/each}
		</ul>
	</section>
{/if}
