<script lang="ts">
	// How far a heavy question is, and how to stop it.
	import { Button } from 'flowbite-svelte';
	import type { Progress } from '$lib/api/types.gen';

	let { progress, onstop }: { progress: Progress; onstop: () => void } = $props();
	const uid = $props.id();
</script>

<div class="mt-2 grid gap-2 border border-line bg-land/50 p-3" role="status">
	<p id={uid}>
		{progress.says}. {progress.seconds} s of {progress.most} s at most.
	</p>
	<progress
		class="h-2 w-full appearance-none [&::-moz-progress-bar]:bg-ink [&::-webkit-progress-bar]:bg-line [&::-webkit-progress-value]:bg-ink"
		max={progress.most}
		value={progress.seconds}
		aria-labelledby={uid}
	></progress>
	<Button class="justify-self-start" color="alternative" onclick={onstop}>Stop</Button>
</div>
