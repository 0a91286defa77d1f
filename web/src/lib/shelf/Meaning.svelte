<script lang="ts">
	// What typed or pasted words mean as a part, while they are typed: what they do
	// not say, and what must be settled, with a button for each answer.
	import { LiveAnswer } from '$lib/rule/live.svelte';
	import Mark from '$lib/ui/Mark.svelte';

	let { words = $bindable(), says = $bindable('') }: { words: string; says?: string } = $props();
	const meaning = new LiveAnswer(
		() => words.trim() && 'part?text=' + encodeURIComponent(words.trim())
	);
	$effect(() => {
		says = meaning.reply?.says ?? '';
	});
</script>

<div aria-live="polite" class="min-h-6">
	{#if meaning.fault}
		<p class="text-over">{meaning.fault}</p>
	{:else if meaning.reply}
		<p>
			<strong>{meaning.reply.says}</strong>
			{#each meaning.reply.lines.filter((l) => l.what === 'it does not say') as l (l.value)}
				<span class="text-soft">does not say {l.value}</span>
			{/each}
		</p>
		{#each meaning.reply.asks as a (a.about)}
			<p class="flex flex-wrap items-center gap-2">
				<Mark grade="unknown" />
				{a.about}?
				{#each a.choices as c (c)}
					<button
						type="button"
						class="min-h-11 rounded-md border border-line bg-raised px-3 hover:bg-water-1"
						onclick={() => (words = `${words} ${c}`)}>{c}</button
					>
				{/each}
			</p>
		{/each}
	{/if}
</div>
