<script lang="ts">
	// What is wrong with the draft, and what is doubtful: each leads to its field.
	import type { Problem } from '$lib/api/types.gen';
	import Mark from '$lib/ui/Mark.svelte';
	import Quiet from '$lib/ui/Quiet.svelte';
	import { useDraft } from './draft.svelte';
	import { placeOf } from './places';

	let { ongo }: { ongo: (p: Problem) => void } = $props();
	const get = useDraft();
	const draft = $derived(get());
	const lists = $derived([
		{ title: 'Faults', grade: 'stops', list: draft.problems },
		{ title: 'Doubts', grade: 'warns', list: draft.check?.doubts ?? [] }
	] as const);
</script>

{#each lists as { title, grade, list } (title)}
	{#if list.length > 0}
		<section
			aria-labelledby="{title}-h"
			class={[
				'mb-3 border-l-4 border-over px-3 py-1',
				grade === 'stops' ? 'bg-overtint' : 'border-dashed'
			]}
		>
			<h2 id="{title}-h">{title}</h2>
			<ul>
				{#each list as p (p.pointer + p.says)}
					<li class="flex flex-wrap items-center gap-x-2">
						<Mark {grade} size={18} />
						<Quiet class="text-left" onclick={() => ongo(p)}>
							{#if p.pointer}<strong>{placeOf(draft.sheet, p.pointer)}</strong>:{/if}
							{p.says}
						</Quiet>
						{#if p.cure}<span class="text-soft">{p.cure}</span>{/if}
					</li>
				{/each}
			</ul>
		</section>
	{/if}
{/each}
