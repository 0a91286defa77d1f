<script lang="ts">
	// One job on the bench: what it is, what it waits for, its one next action.
	import { resolve } from '$app/paths';
	import { Button } from 'flowbite-svelte';
	import type { JobCard } from '$lib/api/types.gen';
	import { SCREENS } from '$lib/job/screens';
	import Mark from '$lib/ui/Mark.svelte';
	import { day, when } from '$lib/ui/text';
	import StageTrack from './StageTrack.svelte';

	interface Props {
		card: JobCard;
		/** What is due before this day is late. */
		today: string;
		onback: (c: JobCard) => void;
	}
	let { card: c, today, onback }: Props = $props();
	const late = $derived(!!c.due && c.due < today && c.status.stage !== 'closed');
</script>

<li
	class={[
		'grid grid-cols-[minmax(0,1fr)] content-between gap-x-4 gap-y-1 rounded-sm border bg-raised px-3 py-2 sm:grid-cols-[minmax(0,1fr)_auto]',
		c.ill || c.status.stops ? 'border-over' : 'border-line'
	]}
>
	<div class="min-w-0">
		<h2 class="text-xl leading-7 font-semibold">
			<a class="hover:underline" href={resolve(SCREENS[c.status.go].route, { id: c.id })}
				>{c.title}</a
			>
		</h2>
		<p class="truncate text-soft" title={c.wish ? `“${c.wish}”` : undefined}>
			{[c.tag, c.sheet, c.owner].filter(Boolean).join(' · ')}
		</p>
	</div>
	{#if c.ill}
		<Mark grade="stops" />
		<p class="sm:col-span-2">{c.ill}</p>
		<div class="flex flex-wrap gap-3 sm:col-span-2">
			<Button
				color="alternative"
				href="/api/jobs/{encodeURIComponent(c.id)}/raw"
				data-sveltekit-reload
				download>Save what is there</Button
			>
			<Button aria-label="Bring back its last good revision: {c.title}" onclick={() => onback(c)}
				>Bring back its last good revision</Button
			>
		</div>
	{:else}
		<StageTrack status={c.status} />
		<div class="min-w-0 self-end">
			<p class="flex items-start gap-2 leading-tight">
				{#if c.status.stops}<span class="mt-0.5"><Mark grade="stops" /></span>{/if}
				<span><span class="text-soft">waits for</span> {c.status.waits}</span>
			</p>
			<p class="truncate text-soft">
				{#if c.due}<strong class={late ? 'text-over' : 'text-ink'}
						>{late ? 'late: ' : ''}due {day(c.due)}</strong
					>{:else}in since {when(c.arrived)}{/if}{c.stands ? ` · ${c.stands}` : ''}
			</p>
		</div>
		<Button
			class="self-end whitespace-normal sm:max-w-64"
			color={c.status.stage === 'closed' ? 'alternative' : 'primary'}
			href={resolve(SCREENS[c.status.go].route, { id: c.id })}
			aria-label="{c.status.next}: {c.title}">{c.status.next}</Button
		>
	{/if}
</li>
