<script lang="ts">
	// One thing before and after: what it says, its runs, where to look.
	import type { Gained } from '$lib/api/types.gen';
	import { useSession } from '$lib/job/session.svelte';
	import Quiet from '$lib/ui/Quiet.svelte';
	import { when } from '$lib/ui/text';
	import Plot from './Plot.svelte';

	let { gained }: { gained: Gained } = $props();
	const get = useSession();
	const session = $derived(get());
	const words: Record<Gained['verdict'], string> = {
		better: 'better',
		worse: 'worse',
		alike: 'no change',
		near: 'cannot be told',
		lone: 'one side only'
	};
</script>

<article class="border-t border-line py-4" data-testid="gain">
	<header class="flex flex-wrap items-baseline gap-x-3">
		<h3 class="text-lg">{gained.what}</h3>
		<span
			class={[
				'border px-1.5',
				gained.verdict === 'better' && 'border-water-5 bg-water-1',
				gained.verdict === 'worse' && 'border-over bg-overtint',
				!['better', 'worse'].includes(gained.verdict) && 'border-line'
			]}>{words[gained.verdict]}</span
		>
	</header>
	<p class="py-1 first-letter:uppercase">{gained.says}</p>
	<div class="grid gap-x-8 gap-y-1 lg:grid-cols-[minmax(0,42rem)_1fr]">
		<Plot {gained} />
		<div class="max-w-prose">
			{#if gained.allows}
				<p class="text-soft">
					Broken line: the most that drive and path carry, {Math.round(
						gained.allows
					).toLocaleString('en')}
					{gained.unit}.
				</p>
			{/if}
			{#if gained.sound && gained.sides.some((s) => s.background?.length)}
				<p class="text-soft">
					Without the room: {gained.sides.map((s) => `${s.when} ${s.says}`).join(', ')}.
				</p>
			{/if}
			<ul class="list-disc pl-5">
				{#each gained.looks as l, i (i)}<li>{l}</li>{/each}
			</ul>
		</div>
	</div>
	<p class="flex flex-wrap items-center gap-x-3 text-soft">
		{#each gained.sides as s (s.id)}
			<span>
				{s.when}: {s.runs.length === 1 ? '1 run' : `${String(s.runs.length)} runs`}{s.by
					? `, ${s.by}`
					: ''}{s.at ? `, ${when(s.at)}` : ''}{s.with ? `, with ${s.with}` : ''}
				{#if !session.closed}
					<Quiet
						aria-label="Take back: {gained.what}, {s.when}"
						onclick={() => session.change({ do: 'unmeasure', value: String(s.id) })}
						>Take back</Quiet
					>
				{/if}
			</span>
		{/each}
	</p>
</article>
