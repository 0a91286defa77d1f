<script lang="ts">
	// What typed or pasted words mean as a part, while they are typed: what each was
	// taken for, what they do not say, and what must be settled, with a button for each
	// answer.
	import { LiveAnswer } from '$lib/rule/live.svelte';
	import Mark from '$lib/ui/Mark.svelte';

	let { words = $bindable(), says = $bindable('') }: { words: string; says?: string } = $props();
	const meaning = new LiveAnswer(
		() => words.trim() && 'part?text=' + encodeURIComponent(words.trim())
	);
	/** The line about what the words leave unsaid is the last. */
	const isSilent = (what: string) => what === 'it does not say';
	const taken = $derived(meaning.reply?.lines.filter((l) => !isSilent(l.what)) ?? []);
	const silent = $derived(meaning.reply?.lines.filter((l) => isSilent(l.what)) ?? []);
	$effect(() => {
		says = meaning.reply?.says ?? '';
	});
</script>

<div aria-live="polite" class="min-h-6">
	{#if meaning.fault}
		<p class="text-over">{meaning.fault}</p>
	{:else if meaning.reply}
		<p><strong>{meaning.reply.says}</strong></p>
		<ul class="flex flex-wrap gap-x-4" aria-label="What each word was taken for">
			{#each taken as l, i (i)}
				<li><span class="font-mono text-sound">{l.what}</span> {l.value}</li>
			{/each}
		</ul>
		{#each silent as l (l.value)}
			<p class="text-soft">does not say {l.value}</p>
		{/each}
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
