<script lang="ts">
	import { Button } from 'flowbite-svelte';
	import { resolve } from '$app/paths';
	import Lines from '$lib/logbook/Lines.svelte';
	import Stays from '$lib/logbook/Stays.svelte';
	import { lifeAt } from '$lib/logbook/api';
	import { when } from '$lib/ui/text';
	import type { PageProps } from './$types';

	let { data }: PageProps = $props();
	const view = $derived(data.view);
	const now = Date.now();
	const serials = $derived([
		...new Set(view.life.stays.map((s) => s.serial ?? '').filter(Boolean))
	]);
</script>

<svelte:head><title>{view.title}, its life · Deep Bay</title></svelte:head>

<div class="flex flex-wrap items-end gap-x-6 gap-y-2 pt-4 pb-2">
	<div class="min-w-0 grow">
		<p class="text-soft">
			<a href={resolve('/logbook')} class="underline decoration-dotted underline-offset-4"
				>Logbook</a
			>
			· the life of {data.part ? 'a part' : 'a machine'}
		</p>
		<h1>{view.title}</h1>
		<p class="text-soft">
			{[data.part ? `serial number ${view.tag}` : view.tag, view.model, view.owner, view.says]
				.filter(Boolean)
				.join(' · ')}
		</p>
	</div>
	<Button color="alternative" href="{data.file}&as=csv" data-sveltekit-reload download
		>Save as a list</Button
	>
	<Button color="alternative" href="{data.file}&as=json" data-sveltekit-reload download
		>Save as JSON</Button
	>
</div>

{#if view.life.stays.length > 0}
	<section class="py-3">
		<h2 class="pb-2">{data.part ? 'In which machines it was' : 'What was in it'}</h2>
		<Stays stays={view.life.stays} machines={data.part} {now} />
	</section>
{/if}

<div class="grid gap-x-10 gap-y-4 lg:grid-cols-[1fr_20rem]">
	<section>
		<h2>What happened</h2>
		{#if view.life.events.length === 0}<p class="py-2">No job tells of it.</p>{/if}
		<ol data-testid="events">
			{#each view.life.events as e, i (i)}
				<li class="grid border-b border-line py-2 sm:grid-cols-[11rem_1fr]">
					<time class="text-soft tabular-nums" datetime={e.at}>{when(e.at)}</time>
					<span
						>{#if data.part}<b class="font-semibold">{e.title}:</b>{/if}
						{e.says}</span
					>
				</li>
			{/each}
		</ol>
		{#if view.shelf.length > 0}
			<h2 class="pt-4">On the shelf</h2>
			<Lines lines={view.shelf} />
		{/if}
	</section>
	<aside>
		{#if view.jobs.length > 0}
			<h2>{view.jobs.length === 1 ? 'Its job' : 'Its jobs'}</h2>
			<ul>
				{#each view.jobs as j (j.id)}
					<li>
						<a
							href={resolve('/jobs/[id]', { id: j.id })}
							class="inline-flex min-h-11 items-center underline underline-offset-4">{j.title}</a
						>
						<span class="text-soft">{j.id}</span>
					</li>
				{/each}
			</ul>
		{/if}
		{#if !data.part && serials.length > 0}
			<h2 class="pt-3">Lives of its parts</h2>
			<ul class="flex flex-wrap gap-x-4">
				{#each serials as s (s)}
					<li>
						<a
							href={/* eslint-disable-line svelte/no-navigation-without-resolve -- it is, with a query */ lifeAt(
								{ serial: s }
							)}
							class="mono inline-flex min-h-11 items-center underline decoration-dotted underline-offset-4"
							>{s}</a
						>
					</li>
				{/each}
			</ul>
		{/if}
	</aside>
</div>
