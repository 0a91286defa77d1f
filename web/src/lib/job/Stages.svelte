<script lang="ts">
	// The stages of a job as one line: those that are finished, the one at work, those to come,
	// whose plans can be looked at and changed before.
	import Quiet from '$lib/ui/Quiet.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { useDesk } from './desk.svelte';

	const desk = useDesk();
	const session = $derived(desk.session);
	const stages = $derived(session.view.stages);
</script>

<div class="flex flex-wrap items-center gap-x-2 gap-y-1 pb-1" data-testid="stages">
	<ol class="flex flex-wrap items-center gap-1" aria-label="Stages of this job">
		{#each stages as s, i (s.at)}
			<li class="flex items-center gap-1">
				{#if i > 0}<span aria-hidden="true" class="text-soft">then</span>{/if}
				{#if s.at < 0}
					<span class="flex min-h-11 items-center gap-1.5 px-2 text-soft"
						><Mark grade="good" size={16} label="finished" /> {s.name}</span
					>
				{:else}
					<button
						class={[
							'min-h-11 border-b-4 px-3',
							session.view.at === s.at
								? 'border-ink font-semibold'
								: 'border-transparent hover:bg-water-1'
						]}
						aria-pressed={session.view.at === s.at}
						onclick={() => session.look(s.at)}>{s.name}{s.at === 0 ? ' (now)' : ''}</button
					>
				{/if}
			</li>
		{/each}
	</ol>
	{#if !session.closed}
		<Quiet class="text-soft" onclick={() => (desk.dialog = 'stage')}>Add a stage</Quiet>
		{#if session.view.at > 0}
			<Quiet
				class="text-soft"
				onclick={() => session.change({ do: 'drop stage', value: String(session.view.at) })}
				>Drop this stage</Quiet
			>
		{/if}
	{/if}
</div>
