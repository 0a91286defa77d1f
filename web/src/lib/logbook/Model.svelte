<script lang="ts">
	// What jobs on a model showed: in what its machines are again and again not as the sheet says,
	// and what they proved.
	import { invalidateAll } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { refused } from '$lib/api/refused';
	import type { ModelView } from '$lib/api/types.gen';
	import { keepDifference } from '$lib/step/api';
	import Quiet from '$lib/ui/Quiet.svelte';
	import { toasts } from '$lib/ui/toasts.svelte';
	import { who } from '$lib/ui/who.svelte';
	import Proofs from './Proofs.svelte';
	import { askedBy, logbookAt, model } from './api';

	let { sheet }: { sheet: string } = $props();
	let view = $state.raw<ModelView | null>(null);
	const ask = async () => {
		try {
			view = await model(sheet);
		} catch (e) {
			refused(e);
		}
	};
	$effect(() => void ask());

	async function kept() {
		await Promise.all([ask(), invalidateAll()]);
	}
	async function keep(job: string, id: number) {
		try {
			const { says } = await keepDifference(job, { id, by: who.name });
			toasts.add('done', says);
			await kept();
		} catch (e) {
			refused(e);
		}
	}
	const lines = $derived(logbookAt({ ...askedBy(), model: sheet }));
</script>

{#if view}
	<section data-testid="showed" class="pt-4">
		<h3 class="font-semibold">What jobs on it showed</h3>
		{#if view.differs.length + view.proofs.length === 0}
			<p class="text-soft">Nothing that the sheet does not say.</p>
		{/if}
		<ul>
			{#each view.differs as d (d.job + d.id)}
				<li class="flex flex-wrap items-center gap-x-3">
					<span
						>{d.says}
						<span class="text-soft"
							>{d.times === 1 ? 'once' : `in ${d.times} jobs`}, last in
							<a
								href={resolve('/jobs/[id]', { id: d.job })}
								class="underline decoration-dotted underline-offset-4">{d.title}</a
							></span
						></span
					>
					{#if d.fits}<Quiet onclick={() => keep(d.job, d.id)}>Write it into the sheet</Quiet>{/if}
				</li>
			{/each}
		</ul>
		<Proofs proofs={view.proofs} onkept={kept} />
		<p>
			<a
				href={/* eslint-disable-line svelte/no-navigation-without-resolve -- it is, with a query */ lines}
				class="inline-flex min-h-11 items-center underline decoration-dotted underline-offset-4"
				>All lines of the logbook on this model</a
			>
		</p>
	</section>
{/if}
