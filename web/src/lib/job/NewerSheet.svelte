<script lang="ts">
	// The shop's sheet says more by now than the one the job began with: what differs, what that
	// changes here, and one action that takes it. What other jobs on the model showed besides can
	// be kept on the sheet first.
	import { Button } from 'flowbite-svelte';
	import { api } from '$lib/api/client';
	import { refusal } from '$lib/api/refused';
	import type { NewerSheet } from '$lib/api/types.gen';
	import Fetched from '$lib/ui/Fetched.svelte';
	import { useSession } from './session.svelte';

	const get = useSession();
	const session = $derived(get());
	let newer = $state.raw<NewerSheet | null>(null);
	const sheet = $derived(JSON.stringify(session.job.sheet));

	const ask = async () => {
		const id = session.job.id;
		try {
			const n = await api.newerSheet(id);
			if (id === session.job.id) newer = n;
		} catch (e) {
			refusal(e);
			newer = null; // nothing hangs on it: the job has a sheet
		}
	};
	$effect(() => {
		void sheet; // it is asked anew when the job's sheet is another
		void ask();
	});
</script>

{#if newer && newer.proofs.length > 0 && !session.closed && session.view.at === 0}
	<section aria-labelledby="showed-h" class="border-l-4 border-water-4 pl-3">
		<h2 id="showed-h">Jobs on this model showed more than its sheet says</h2>
		<Fetched
			load={() => import('$lib/logbook/Proofs.svelte')}
			also={{ proofs: newer.proofs, onkept: ask }}
		/>
	</section>
{/if}
{#if newer && newer.differs.length > 0 && !session.closed && session.view.at === 0}
	<section aria-labelledby="newer-h" class="border-l-4 border-water-4 pl-3" data-testid="newer">
		<h2 id="newer-h">The shop's sheet is another by now</h2>
		<ul class="list-disc pl-5">
			{#each newer.differs as d, i (i)}<li>{d}</li>{/each}
		</ul>
		{#if newer.fault}
			<p class="text-over">It cannot be taken into this job: {newer.fault}.</p>
		{:else}
			{#if newer.comes.length + newer.goes.length === 0}
				<p class="text-soft">No finding of this job changes by it.</p>
			{/if}
			{#each newer.comes as f, i (i)}<p>
					<span class="text-soft">then also:</span>
					{f}
				</p>{/each}
			{#each newer.goes as f, i (i)}<p><span class="text-soft">no more:</span> {f}</p>{/each}
			<Button color="alternative" class="mt-2" onclick={() => session.takeSheet()}
				>Take it into this job</Button
			>
		{/if}
	</section>
{/if}
