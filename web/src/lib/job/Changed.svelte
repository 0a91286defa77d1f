<script lang="ts">
	// What the last change made different, until the next one.
	import type { Changed } from '$lib/api/types.gen';
	import { useDesk } from './desk.svelte';

	const desk = useDesk();
	const list = $derived(desk.changed);
	const key = (c: Changed) => c.socket ?? c.now;
	const SIGN = { in: '+', out: '−', better: '↑', worse: '↓' } as const;
</script>

<section aria-labelledby="changed-h" class="border-l-4 border-water-5 pl-3" data-testid="changed">
	<div class="flex items-center justify-between gap-2">
		<h2 id="changed-h">What that changed</h2>
		<button
			class="min-h-11 shrink-0 rounded-md border border-line px-3 hover:bg-water-1"
			onclick={() => desk.seen()}>Seen</button
		>
	</div>
	<ul class="grid gap-1 leading-tight">
		{#each list as c (key(c))}
			<li class="flex gap-2">
				<span
					class={['w-4 shrink-0 text-center font-semibold', c.turn === 'worse' && 'text-over']}
					aria-hidden="true">{SIGN[c.turn]}</span
				>
				<span>
					{#if c.socket}<strong>{c.socket}</strong>{/if}
					{c.now} <span class="text-soft">(was: {c.was})</span>
				</span>
			</li>
		{/each}
	</ul>
</section>
