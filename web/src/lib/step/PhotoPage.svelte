<script lang="ts">
	// The photographs of a job on its hand-over page: they print on a page of their own.
	import { onMount } from 'svelte';
	import * as ask from '$lib/step/api';
	import { refusal } from '$lib/api/refused';
	import type { SheetPicture } from '$lib/api/types.gen';
	import Quiet from '$lib/ui/Quiet.svelte';
	import { when } from '$lib/ui/text';

	let { job }: { job: string } = $props();
	const of = $derived(`/jobs/${encodeURIComponent(job)}`);
	let all = $state.raw<readonly SheetPicture[]>([]);
	let fault = $state('');

	async function look() {
		try {
			all = await ask.pictures(of);
			fault = '';
		} catch (e) {
			fault = refusal(e).says;
		}
	}
	onMount(look);
</script>

{#if fault}
	<p class="no-print mt-4">
		The photographs cannot be shown: {fault}
		<Quiet onclick={() => void look()}>Try again</Quiet>
	</p>
{:else if all.length > 0}
	<section class="mt-6 break-before-page" aria-labelledby="photographs-h" data-testid="photographs">
		<h3 id="photographs-h" class="font-semibold">Photographs</h3>
		<ul class="mt-2 grid grid-cols-2 gap-3 sm:grid-cols-3">
			{#each all as p (p.id)}
				<li class="break-inside-avoid">
					<img
						class="h-auto w-full border border-line"
						src="/api{of}/pictures/{p.id}"
						alt="{p.says}, {when(p.at)}"
						width={p.width}
						height={p.height}
					/>
					<p class="text-soft">{p.says} · {when(p.at)}{p.by ? `, ${p.by}` : ''}</p>
				</li>
			{/each}
		</ul>
	</section>
{/if}
