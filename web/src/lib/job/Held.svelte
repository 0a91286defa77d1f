<script lang="ts">
	// Why a step that erases is held back, and what to say where somebody only has to look.
	import { Button } from 'flowbite-svelte';
	import type { Step } from '$lib/api/types.gen';
	import { useSession } from './session.svelte';

	interface Props {
		step: Step;
		class?: string;
	}
	let { step, class: more = '' }: Props = $props();
	const get = useSession();
	const session = $derived(get());
	const unlooked = $derived(session.job.items.filter((i) => step.look?.includes(i.id)));
	const name = (part: string) => session.job.parts.find((p) => p.id === part)?.name ?? part;
</script>

<div
	role="note"
	class={['max-w-prose border-l-4 border-over bg-overtint px-3 py-2 text-xl', more]}
	data-testid="held"
>
	<strong class="text-over">Held back:</strong>
	{step.held}
	{#if !session.closed}
		{#each unlooked as it (it.id)}
			<Button
				color="alternative"
				class="mt-2 block min-h-11"
				onclick={() =>
					session.change({
						do: 'correct',
						item: it.id,
						holds: 'blank',
						...(it.serial && { serial: it.serial }),
						...(it.new && { new: true })
					})}>{name(it.part)} is blank: I looked</Button
			>
		{/each}
	{/if}
</div>
