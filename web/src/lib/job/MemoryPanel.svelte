<script lang="ts">
	// What the memory comes to, and the two answers to "and the old modules?".
	import { Button } from 'flowbite-svelte';
	import type { MemoryAnswer, Variant } from '$lib/api/types.gen';
	import Reasons from '$lib/ui/Reasons.svelte';

	interface Props {
		memory: MemoryAnswer;
		variants: readonly Variant[];
		onuse?: (v: Variant) => void;
	}
	let { memory, variants, onuse }: Props = $props();
	const most = $derived(Math.max(1, ...memory.channels.map((c) => c.bytes)));
</script>

<section aria-label="Memory">
	<p class="text-2xl font-semibold" data-testid="memory-total">{memory.total}</p>
	<p data-testid="memory-speed">
		{memory.speed} · {memory.spread} · peak {memory.peak}
	</p>
	<div class="my-2 flex gap-4" aria-hidden="true">
		{#each memory.channels as c (c.channel)}
			<div class="grow">
				<div class="h-3 bg-water-1">
					<div class="h-3 bg-water-5" style:width="{(100 * c.bytes) / most}%"></div>
				</div>
				<span class="text-soft">channel {c.channel}</span>
			</div>
		{/each}
	</div>
	{#if memory.because.length > 0}
		<details>
			<summary class="min-h-11 cursor-pointer py-2 text-soft">why this speed</summary>
			<Reasons because={memory.because} />
		</details>
	{/if}
	{#if variants.length > 0}
		<table class="mt-1 w-full border-collapse text-left">
			<caption class="text-left text-soft">With and without the old modules</caption>
			<thead class="sr-only">
				<tr><th>Choice</th><th>Comes to</th><th>Use</th></tr>
			</thead>
			<tbody>
				{#each variants as v (v.name)}
					<tr class="border-t border-line">
						<th scope="row" class="py-2 pr-2 align-top font-semibold">{v.name}</th>
						<td class="py-2 pr-2">
							{v.memory.total}, {v.memory.speed}<br />
							<span class="text-soft">{v.memory.spread}, peak {v.memory.peak}</span>
						</td>
						<td class="py-1 text-right">
							{#if v.current}
								<span class="text-soft">in plan</span>
							{:else if onuse}
								<Button
									color="alternative"
									size="sm"
									aria-label="Use: {v.name}"
									onclick={() => onuse(v)}>Use</Button
								>
							{/if}
						</td>
					</tr>
				{/each}
			</tbody>
		</table>
	{/if}
</section>
