<script lang="ts">
	// Before and after: what got better, by how much, and where to look where it did not.
	import { Button } from 'flowbite-svelte';
	import { refused } from '$lib/api/refused';
	import type { Gains, Series } from '$lib/api/types.gen';
	import { useSession } from '$lib/job/session.svelte';
	import * as api from '$lib/measure/api';
	import Enter from '$lib/measure/Enter.svelte';
	import Gain from '$lib/measure/Gain.svelte';
	import FileButton from '$lib/ui/FileButton.svelte';

	const get = useSession();
	const session = $derived(get());
	let gains = $state.raw<Gains>();
	let entering = $state(false);
	let read = $state.raw<Series[]>([]);
	$effect(() => {
		void session.now.revision;
		api.gains(session.job.id).then((g) => (gains = g), refused);
	});
	async function take(file: File) {
		try {
			read = (await api.measurements(file)).series;
			entering = true;
		} catch (e) {
			refused(e);
		}
	}
	function enter() {
		read = [];
		entering = true;
	}
</script>

<svelte:head><title>Before and after: {session.job.title} · Deep Bay</title></svelte:head>

<div class="flex flex-wrap items-center gap-x-4 gap-y-2 py-2">
	<h2 class="text-xl">Before and after</h2>
	<span class="grow"></span>
	{#if !session.closed}
		<FileButton label="A file of measurements" accept=".json,.csv,.txt" ontake={take}
			>Read a file of measurements</FileButton
		>
		<Button onclick={enter}>Enter a measurement</Button>
	{/if}
</div>
{#if gains === undefined}
	<p class="py-8 text-soft" role="status">Reading what was measured…</p>
{:else if gains.changes.length === 0}
	<div class="max-w-prose py-8">
		<p>Nothing is measured yet.</p>
		<p class="mt-2 text-soft">
			Measure the owner’s own work before anything is opened, and the same again when all is proved:
			the same file, the same port, the machine idle for five minutes, the first run left out. Run
			<code>deepbay measure DIRECTORY</code> on the machine for rates; its file is read here, and so is
			that of fio, or a table.
		</p>
	</div>
{:else}
	{#each gains.changes as g, i (i)}<Gain gained={g} />{/each}
{/if}
{#if gains}<Enter bind:open={entering} bind:read whats={gains.whats} />{/if}
