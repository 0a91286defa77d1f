<script lang="ts">
	// What somebody at the bench looked up: it holds in this job, can be taken back, and is
	// offered to the shop's sheet or part. Below it, folded, what was taken as usual.
	import { api } from '$lib/api/client';
	import { refused } from '$lib/api/refused';
	import type { LookedUp } from '$lib/api/types.gen';
	import { toasts } from '$lib/ui/toasts.svelte';
	import { who } from '$lib/ui/who.svelte';
	import Quiet from '$lib/ui/Quiet.svelte';
	import LookUp from './LookUp.svelte';
	import { factKey } from './missing';
	import { useSession } from './session.svelte';

	const get = useSession();
	const session = $derived(get());
	const looked = $derived(session.view.looked);
	const usual = $derived(session.view.usual);

	async function keep(l: LookedUp) {
		try {
			const done = await api.keep(session.job.id, { fact: l.fact, by: who.name });
			toasts.add('done', done.says);
		} catch (e) {
			refused(e);
		}
	}
</script>

<section aria-label="What was looked up" data-testid="looked">
	<ul class="grid gap-1">
		{#each looked as l, i (i)}
			<li class="border-l-4 border-water-4 pl-3">
				{l.says}
				<span class="text-soft">({l.by})</span>
				{#if !session.closed}
					<span class="flex flex-wrap gap-3">
						<Quiet
							aria-label="Take it back: {l.says}"
							onclick={() => session.change({ do: 'unlook', fact: l.fact })}>Take it back</Quiet
						>
						{#if l.keeps}
							<Quiet aria-label="Keep it on the {l.keeps}: {l.says}" onclick={() => keep(l)}
								>Keep it on the {l.keeps}</Quiet
							>
						{/if}
					</span>
				{/if}
			</li>
		{/each}
	</ul>
	{#if usual.length > 0}
		<details class="mt-1">
			<summary class="min-h-11 cursor-pointer py-2">
				{usual.length === 1 ? 'One thing is' : `${usual.length} things are`} taken as usual
			</summary>
			<p class="text-soft">
				Manuals and labels rarely say this, and it is nearly always so. Look where it is close.
			</p>
			<ul class="mt-1 grid gap-2">
				{#each usual as m (factKey(m))}<li><LookUp missing={m} /></li>{/each}
			</ul>
		</details>
	{/if}
</section>
