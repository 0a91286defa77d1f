<script lang="ts">
	// What whoever looks after the machine should see to: backup, room, damage.
	import { invalidate } from '$app/navigation';
	import { Button } from 'flowbite-svelte';
	import { api } from '$lib/api/client';
	import { refused } from '$lib/api/refused';
	import type { Damage } from '$lib/api/types.gen';
	import Mark from '$lib/ui/Mark.svelte';
	import { toasts } from '$lib/ui/toasts.svelte';
	import { who } from '$lib/ui/who.svelte';
	import type { PageData } from '../../routes/$types';

	let { data }: { data: PageData } = $props();

	/** A sheet or a part that is damaged comes back as it last was in order. */
	async function mend(d: Damage) {
		try {
			await api.mend(d.what, d.id, who.name, crypto.randomUUID());
			toasts.add('done', `The ${d.what} ${d.id} is back as it last was`);
			await invalidate('app:bench');
		} catch (e) {
			refused(e);
		}
	}
</script>

{#if data.backup?.old}
	<p class="mb-4 flex items-start gap-2 border-l-4 border-over bg-overtint p-3" role="alert">
		<span class="mt-0.5"><Mark grade="stops" /></span>
		<span><strong>Backup</strong> · {data.backup.says}. Tell whoever looks after this machine.</span
		>
	</p>
{/if}

{#if data.space?.low}
	<p class="mb-4 flex items-start gap-2 border-l-4 border-over bg-overtint p-3" role="alert">
		<span class="mt-0.5"><Mark grade="stops" /></span>
		<span
			><strong>Room</strong> · {data.space.says}. Soon nothing can be kept: tell whoever looks after
			this machine.</span
		>
	</p>
{/if}

{#each data.damaged as d (d.what + ' ' + d.id + d.says)}
	<div class="mb-4 flex flex-wrap items-start gap-2 border-l-4 border-over bg-overtint p-3">
		<span class="mt-0.5"><Mark grade="stops" /></span>
		<p class="min-w-0 flex-1"><strong>Damaged</strong> · {d.says}</p>
		{#if d.what === 'sheet' || d.what === 'part'}
			<Button
				color="alternative"
				href="/api/damaged/{d.what}/{encodeURIComponent(d.id)}"
				data-sveltekit-reload
				download
				aria-label="Save what is there: {d.what} {d.id}">Save what is there</Button
			>
			<Button
				aria-label="Bring back its last good revision: {d.what} {d.id}"
				onclick={() => mend(d)}>Bring back its last good revision</Button
			>
		{/if}
	</div>
{/each}
