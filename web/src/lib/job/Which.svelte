<script lang="ts">
	// Which state of the machine is drawn, and the wish it is to meet.
	import { Button } from 'flowbite-svelte';
	import { hint } from '$lib/ui/commands.svelte';
	import Quiet from '$lib/ui/Quiet.svelte';
	import { useDesk } from './desk.svelte';

	const desk = useDesk();
	const session = $derived(desk.session);
	const wish = $derived(session.job.wish?.text);
	const STATES = $derived([
		['planned', 'As planned'],
		['found', session.view.at > 0 ? 'As it begins' : 'As found']
	] as const);
</script>

<div class="flex items-center gap-x-3 pb-2 max-sm:flex-wrap">
	<div
		class="flex shrink-0 rounded-md border border-ink"
		role="group"
		aria-label="Which state is drawn"
	>
		{#each STATES as [s, label] (s)}
			<button
				class={[
					'min-h-11 px-3 max-sm:px-2',
					desk.shown === s ? 'bg-ink text-paper' : 'hover:bg-water-1'
				]}
				aria-pressed={desk.shown === s}
				onclick={() => desk.show(s)}>{label}</button
			>
		{/each}
	</div>
	<div class="flex min-w-0 grow items-center gap-x-3 max-sm:order-last max-sm:w-full">
		{#if wish}<p class="line-clamp-2 min-w-0 leading-tight text-soft">Wish: “{wish}”</p>{/if}
		{#if !session.closed}
			<Quiet onclick={() => (desk.dialog = 'wish')}>{wish ? 'Change it' : 'Write the wish'}</Quiet>
		{/if}
	</div>
	{#if !session.closed && desk.shown === 'planned'}
		<Button
			class="shrink-0 max-sm:px-3"
			color="alternative"
			aria-busy={desk.planner.busy}
			onclick={() => desk.plan()}
			{@attach hint('plan')}>{desk.planner.advice ? 'Plan again' : 'Find the best plan'}</Button
		>
	{/if}
</div>
