<script lang="ts">
	// All there is of a job's owner: to take along, or to delete for good.
	import { goto } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { Button, Input, Label } from 'flowbite-svelte';
	import { api } from '$lib/api/client';
	import { refusal } from '$lib/api/refused';
	import type { OwnerJobs } from '$lib/api/types.gen';
	import Dialog from '$lib/ui/Dialog.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { toasts } from '$lib/ui/toasts.svelte';
	import { who } from '$lib/ui/who.svelte';

	let { owner }: { owner: string } = $props();
	const uid = $props.id();
	let of = $state.raw<OwnerJobs | null>(null);
	let fault = $state('');
	let asking = $state(false);
	let typed = $state('');
	let key = $state('');

	async function look() {
		fault = '';
		try {
			of = await api.owner(owner);
		} catch (e) {
			fault = refusal(e).says;
		}
	}

	function ask() {
		typed = '';
		key = crypto.randomUUID(); // pressed again after a lost answer, it is done once
		asking = true;
	}

	async function forget(e: SubmitEvent) {
		e.preventDefault();
		if (!of) return;
		try {
			const done = await api.forget({ owner, jobs: of.jobs.length, by: who.name, key });
			toasts.add('done', done.says);
			await caches.delete('read'); // what this browser kept to be read without the server
			await goto(resolve('/'), { invalidateAll: true });
		} catch (err) {
			fault = refusal(err).says;
			asking = false;
			if (refusal(err).status === 409) of = await api.owner(owner);
		}
	}
</script>

<details ontoggle={(e) => e.currentTarget.open && look()}>
	<summary class="min-h-11 cursor-pointer py-2 text-soft">The owner's data</summary>
	{#if of}
		<div class="grid gap-3">
			<p>{of.says}:</p>
			<ul class="max-h-40 list-disc overflow-y-auto pl-5">
				{#each of.jobs as j (j.id)}
					<li><a class="underline" href={resolve('/jobs/[id]', { id: j.id })}>{j.title}</a></li>
				{/each}
			</ul>
			<Button
				color="alternative"
				href="/api/owner/file?name={encodeURIComponent(owner)}&by={encodeURIComponent(who.name)}"
				data-sveltekit-reload
				download>Save all of it</Button
			>
			{#if of.keeps}
				<p class="text-soft">To delete it: {of.keeps}.</p>
			{:else}
				<Button color="alternative" onclick={ask}>Delete all of it…</Button>
			{/if}
		</div>
	{:else if !fault}
		<p class="text-soft">Looking it up…</p>
	{/if}
	{#if fault}<p role="alert" class="text-over">{fault}</p>{/if}
</details>

<Dialog bind:open={asking} title="Delete all there is of {owner}">
	{#if of}
		<form class="grid gap-3" onsubmit={forget} aria-label="Delete the owner's data">
			<p class="flex items-start gap-2 border-l-4 border-over bg-overtint p-3">
				<span class="mt-0.5"><Mark grade="stops" /></span>
				<span
					>{of.jobs.length === 1 ? 'One job' : `${of.jobs.length} jobs`} with everything done to
					{of.jobs.length === 1 ? 'it' : 'them'} will be gone from here, and nobody can bring that back.
					Save all of it first if anybody may ask. Backups, copies and second machines keep theirs until
					they are replaced; how long records must be kept, local law says.</span
				>
			</p>
			<div>
				<Label for="{uid}name">Type the owner's name: {owner}</Label>
				<Input id="{uid}name" bind:value={typed} autocomplete="off" />
			</div>
			<div class="flex gap-3">
				<Button type="submit" disabled={typed.trim() !== owner.trim()}>Delete for good</Button>
				<Button color="alternative" onclick={() => (asking = false)}>Cancel</Button>
			</div>
		</form>
	{/if}
</Dialog>
