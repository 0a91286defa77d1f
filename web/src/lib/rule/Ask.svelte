<script lang="ts">
	// A question that is answered as one types: the answer, its figures, its reasons.
	import type { Snippet } from 'svelte';
	import Reasons from '$lib/ui/Reasons.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { LiveAnswer } from './live.svelte';

	interface Props {
		title: string;
		/** Path and query after /api/ask/; empty asks nothing. */
		question: string;
		children: Snippet;
		/** A word that settles what is asked back. */
		onchoose?: (word: string) => void;
		/** Its answer is long: the room is kept for it, so that nothing jumps when it comes. */
		long?: boolean;
	}
	let { title, question, children, onchoose, long = false }: Props = $props();
	const uid = $props.id();
	/** It has been in sight: what is further down the page asks nothing before. */
	let seen = $state(false);
	const live = new LiveAnswer(() => (seen ? question : ''));
	function look(el: Element) {
		const eye = new IntersectionObserver((all) => (seen ||= all.some((x) => x.isIntersecting)));
		eye.observe(el);
		return () => eye.disconnect();
	}
	const answer = $derived(live.reply);
</script>

<section
	aria-labelledby="{uid}-h"
	class="border-t border-line pt-3"
	data-ask={title}
	{@attach look}
>
	<h2 id="{uid}-h">{title}</h2>
	<div class="my-2 flex flex-wrap items-end gap-2">{@render children()}</div>
	<div aria-live="polite" class={[question && (long ? 'min-h-52' : 'min-h-44')]}>
		{#if live.fault}
			<p class="flex gap-2 text-over"><Mark grade="stops" label="not answered" /> {live.fault}</p>
		{:else if answer}
			<p class="text-xl font-semibold">{answer.says}</p>
			{#each answer.asks as a (a.about)}
				<p class="flex flex-wrap items-center gap-2 py-1">
					<Mark grade="unknown" />
					{a.about}:
					{#each a.choices as c (c)}
						{#if onchoose}
							<button
								class="min-h-11 rounded-md border border-line px-3 hover:bg-water-1"
								onclick={() => onchoose(c)}>{c}</button
							>
						{:else}<strong>{c}</strong>{/if}
					{/each}
				</p>
			{/each}
			<dl class="grid grid-cols-[auto_1fr] gap-x-4">
				{#each answer.lines as l, i (i)}
					<dt class="text-soft">{l.what}</dt>
					<dd>{l.value}</dd>
				{/each}
			</dl>
			{#if answer.because.length > 0}
				<details>
					<summary class="min-h-11 cursor-pointer py-2 text-soft">why</summary>
					<Reasons because={answer.because} />
				</details>
			{/if}
		{/if}
	</div>
</section>
