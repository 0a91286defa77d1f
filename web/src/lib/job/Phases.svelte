<script lang="ts">
	// How far the order is, phase by phase.
	import type { Step } from '$lib/api/types.gen';
	import Mark from '$lib/ui/Mark.svelte';
	import { useSession } from './session.svelte';

	let { phases }: { phases: readonly { id: string; phase: Step['phase']; steps: Step[] }[] } =
		$props();
	const get = useSession();
	const session = $derived(get());
	const done = (s: Step) => session.tick(s.id) !== undefined;
</script>

<nav aria-label="Phases" class="no-print content-start self-start">
	<p class="pb-1 text-soft" data-testid="progress">
		{session.view.status.done} of {session.view.status.steps} steps done
	</p>
	<ul class="max-lg:flex max-lg:flex-wrap max-lg:gap-x-3">
		{#each phases as p (p.id)}
			{@const n = p.steps.filter(done).length}
			<li>
				<a
					href="#{p.id}"
					class="flex min-h-11 items-center gap-2 px-1 hover:bg-water-1 max-lg:gap-1"
				>
					<Mark
						grade={n === p.steps.length ? 'good' : 'open'}
						size={18}
						label="{n} of {p.steps.length}"
					/>
					<span class="block grow first-letter:uppercase">{p.phase}</span>
					<span class="text-soft">{n}/{p.steps.length}</span>
				</a>
			</li>
		{/each}
	</ul>
</nav>
