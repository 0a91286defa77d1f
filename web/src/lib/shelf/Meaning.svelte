<script lang="ts">
	// What typed or pasted words mean as a part, while they are typed.
	import { LiveAnswer } from '$lib/rule/live.svelte';
	import Taken from './Taken.svelte';

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
		<Taken reply={meaning.reply} onanswer={(word) => (words = `${words} ${word}`)} />
	{/if}
</div>
