<script lang="ts">
	// The server does not take what was done: why, and what waits in this browser.
	import { Button } from 'flowbite-svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { useSession } from './session.svelte';

	const get = useSession();
	const session = $derived(get());
</script>

{#if session.trouble}
	<div role="alert" class="no-print mb-2 border-l-4 border-over bg-overtint px-3 py-2">
		<div class="flex flex-wrap items-center gap-3">
			<Mark grade="stops" />
			<span class="grow">
				{session.trouble}.
				{#if session.waiting.length > 0}
					<strong
						>{session.waiting.length}
						{session.waiting.length === 1 ? 'change is' : 'changes are'} not saved yet</strong
					>: kept in this browser, and sent when it answers.
				{/if}
			</span>
			<Button onclick={() => session.again()} aria-busy={session.busy}>Send now</Button>
		</div>
		{#if session.waiting.length > 0}
			<details>
				<summary class="min-h-11 cursor-pointer py-2">Which</summary>
				<ol class="list-decimal pl-6">
					{#each session.waiting as w (w.key)}
						<li>{w.pressed ?? w.change.do}{w.back ? ': to be taken back' : ''}</li>
					{/each}
				</ol>
			</details>
		{/if}
	</div>
{/if}
