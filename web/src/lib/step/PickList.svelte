<script lang="ts">
	// What to lay out before the machine is opened, by sort, with what is missing.
	import type { PickLine } from '$lib/api/types.gen';
	import Mark from '$lib/ui/Mark.svelte';

	interface Props {
		list: readonly PickLine[];
		/** To tick on paper. */
		boxes?: boolean;
	}
	let { list, boxes = false }: Props = $props();
	const NAMES: Record<PickLine['sort'], string> = {
		part: 'Parts',
		small: 'Small parts',
		tool: 'Tools',
		spent: 'Used up',
		stick: 'Sticks'
	};
	const sorts = $derived(
		(Object.keys(NAMES) as PickLine['sort'][]).filter((s) => list.some((l) => l.sort === s))
	);
	const where = (l: PickLine) =>
		l.short
			? `missing: ${l.count - l.have - l.shelf} of ${l.count}`
			: l.have >= l.count
				? 'here'
				: l.stocked
					? 'on the shelf'
					: '';
</script>

<div class="grid gap-x-6 sm:grid-cols-2" data-testid="pick">
	{#each sorts as s (s)}
		<section>
			<h3 class="font-semibold">{NAMES[s]}</h3>
			<ul>
				{#each list.filter((l) => l.sort === s) as l (l.says)}
					<li class="flex items-start gap-2 py-0.5">
						{#if boxes}<span class="mt-1 size-4 shrink-0 border-2 border-ink"></span>
						{:else}<Mark
								grade={l.short ? 'warns' : 'notes'}
								size={18}
								label={l.short ? 'missing' : 'lay out'}
							/>{/if}
						<span>
							{l.count > 1 ? `${l.count} × ` : ''}{l.says}{#if l.sort === 'small' && where(l)}<span
									class={l.short ? 'font-semibold' : 'text-soft'}>{` · ${where(l)}`}</span
								>{/if}
						</span>
					</li>
				{/each}
			</ul>
		</section>
	{/each}
</div>
