<script lang="ts">
	// The jobs of the bench, grouped as somebody wants them, a page at a time.
	import { invalidate } from '$app/navigation';
	import { Button } from 'flowbite-svelte';
	import { api } from '$lib/api/client';
	import { refused } from '$lib/api/refused';
	import type { JobCard, JobList } from '$lib/api/types.gen';
	import { TABS } from '$lib/job/screens';
	import { toasts } from '$lib/ui/toasts.svelte';
	import { who } from '$lib/ui/who.svelte';
	import { by } from './by.svelte';
	import Card from './Card.svelte';

	interface Props {
		list: JobList;
		/** What was looked for; empty where everything is shown. */
		q: string;
	}
	let { list = $bindable(), q }: Props = $props();
	let asking = $state(false);
	/** The open jobs as they are grouped, then those that are handed over. */
	const groups = $derived.by(() => {
		const open = list.jobs.filter((c) => c.status.stage !== 'closed');
		const closed = list.jobs.filter((c) => c.status.stage === 'closed');
		const of = (c: JobCard) =>
			by.how === 'stage' ? c.status.stage : by.how === 'place' ? (c.stands ?? 'no place') : '';
		const names =
			by.how === 'stage'
				? TABS.filter((t) => open.some((c) => of(c) === t))
				: [...new Set(open.map(of))].sort();
		return [
			...names.map((name) => ({
				name,
				label: name ? `Open jobs: ${name}` : 'Open jobs',
				jobs: open.filter((c) => of(c) === name)
			})),
			...(closed.length > 0 ? [{ name: 'Handed over', label: 'Closed jobs', jobs: closed }] : [])
		];
	});

	/** Puts the next page under what is there; a job that changed meanwhile stays where it was. */
	async function more() {
		if (!list.next || asking) return;
		asking = true;
		try {
			const page = await api.jobs(fetch, q, list.next);
			const there = list.jobs.map((c) => c.id);
			list = { ...page, jobs: [...list.jobs, ...page.jobs.filter((c) => !there.includes(c.id))] };
		} catch (e) {
			refused(e);
		} finally {
			asking = false;
		}
	}

	/** A job that is damaged, or cannot be judged, comes back as it last was in order. */
	async function bringBack(c: JobCard) {
		try {
			const now = await api.back(c.id, who.name, crypto.randomUUID());
			toasts.add('done', `${now.view.job.title} is back: ${now.journal.at(-1)?.says}`);
			await invalidate('app:bench');
		} catch (e) {
			refused(e);
		}
	}
</script>

{#if list.jobs.length === 0}
	<section class="grid max-w-xl gap-3 border-t border-line py-10">
		<h2>{q ? 'Nothing carries that' : 'The bench is clear'}</h2>
		<p>
			{q
				? 'Blanks, dashes and capitals do not matter. Try fewer letters of the serial or part number.'
				: 'Start a job from a machine sheet and a wish, or bring in a job file.'}
		</p>
	</section>
{:else}
	{#each groups as g (g.name)}
		{#if g.name}<h2 class="mt-4 mb-2 first-letter:uppercase">{g.name}</h2>{/if}
		<ul class="grid gap-2 lg:grid-cols-2 2xl:grid-cols-3" aria-label={g.label}>
			{#each g.jobs as c (c.id)}<Card card={c} today={list.today} onback={bringBack} />{/each}
		</ul>
	{/each}
	{#if list.next}
		<div class="flex flex-wrap items-center gap-4 py-5">
			<Button color="alternative" disabled={asking} onclick={more}
				>{asking ? 'Asking…' : 'Show more'}</Button
			>
			<p class="text-soft">
				{list.jobs.length} of {list.open + list.closed} are shown. To find one, type what is printed on
				it above.
			</p>
		</div>
	{/if}
{/if}
