<script lang="ts">
	// What jobs on a model showed beyond its sheet, each with the job as its evidence, and the
	// action that keeps it on the sheet.
	import { resolve } from '$app/paths';
	import { api } from '$lib/api/client';
	import { refused } from '$lib/api/refused';
	import type { ModelProof } from '$lib/api/types.gen';
	import Quiet from '$lib/ui/Quiet.svelte';
	import { toasts } from '$lib/ui/toasts.svelte';
	import { who } from '$lib/ui/who.svelte';

	interface Props {
		proofs: readonly ModelProof[];
		/** The sheet says it now. */
		onkept: () => unknown;
	}
	let { proofs, onkept }: Props = $props();
	let busy = $state(false);

	async function keep(p: ModelProof) {
		busy = true;
		try {
			const { says } = await api.keepProven(p.job, {
				of: p.of,
				...(p.socket && { socket: p.socket }),
				by: who.name
			});
			toasts.add('done', says);
			await onkept();
		} catch (e) {
			refused(e);
		} finally {
			busy = false;
		}
	}
</script>

<ul data-testid="proofs">
	{#each proofs as p (p.of + (p.socket ?? ''))}
		<li class="flex flex-wrap items-center gap-x-3">
			<span
				>{p.says}
				<a
					href={resolve('/jobs/[id]/handover', { id: p.job })}
					class="text-soft underline decoration-dotted underline-offset-4">in {p.title}</a
				></span
			>
			<Quiet disabled={busy} onclick={() => keep(p)}>Keep it on the sheet as proven</Quiet>
		</li>
	{/each}
</ul>
