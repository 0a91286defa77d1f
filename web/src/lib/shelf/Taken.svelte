<script lang="ts">
	// What words were taken for, piece by piece, what they do not say, and what must be
	// settled, with a button for each answer.
	import type { Reply } from '$lib/api/types.gen';
	import Mark from '$lib/ui/Mark.svelte';

	interface Props {
		reply: Pick<Reply, 'says' | 'lines' | 'asks'>;
		/** Adds a word that settles a question. */
		onanswer: (word: string) => void;
	}
	let { reply, onanswer }: Props = $props();
	/** The line about what the words leave unsaid is the last. */
	const isSilent = (what: string) => what === 'it does not say';
	const taken = $derived(reply.lines.filter((l) => !isSilent(l.what)));
	const silent = $derived(reply.lines.filter((l) => isSilent(l.what)));
</script>

<p><strong>{reply.says}</strong></p>
<ul class="flex flex-wrap gap-x-4" aria-label="What each word was taken for">
	{#each taken as l, i (i)}
		<li><span class="font-mono text-sound">{l.what}</span> {l.value}</li>
	{/each}
</ul>
{#each silent as l (l.value)}
	<p class="text-soft">does not say {l.value}</p>
{/each}
{#each reply.asks as a (a.about)}
	<p class="flex flex-wrap items-center gap-2">
		<Mark grade="unknown" />
		{a.about}?
		{#each a.choices as c (c)}
			<button
				type="button"
				class="min-h-11 rounded-md border border-line bg-raised px-3 hover:bg-water-1"
				onclick={() => onanswer(c)}>{c}</button
			>
		{/each}
	</p>
{/each}
