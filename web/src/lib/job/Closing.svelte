<script lang="ts">
	// Beside the page: what is still to be said before the job is closed, closing it, its journal.
	import { goto } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { Button, Checkbox, Label, Textarea } from 'flowbite-svelte';
	import { api } from '$lib/api/client';
	import { refused } from '$lib/api/refused';
	import type { Fitted, Proven } from '$lib/api/types.gen';
	import Later from '$lib/ui/Later.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import Quiet from '$lib/ui/Quiet.svelte';
	import { when } from '$lib/ui/text';
	import { toasts } from '$lib/ui/toasts.svelte';
	import { who } from '$lib/ui/who.svelte';
	import OwnerData from './OwnerData.svelte';
	import { useSession } from './session.svelte';

	const get = useSession();
	const session = $derived(get());
	const job = $derived(session.job);
	const r = $derived(session.view.report);
	let note = $state('');
	let sure = $state(false);
	/** A drive that was taken out, and is wiped now. */
	let old = $state.raw<Fitted>();
	let wiping = $state(false);
	let papers = $state(false);
	const later = $derived(session.view.stages.find((s) => s.at === 1)?.name);

	let key = crypto.randomUUID();

	/** A new job that begins with what this one left in the machine. */
	async function again() {
		try {
			const made = await api.again(job.id, {
				revision: session.now.revision,
				key,
				by: who.name
			});
			key = crypto.randomUUID();
			await goto(resolve('/jobs/[id]/fit', { id: made.view.job.id }));
		} catch (e) {
			refused(e);
		}
	}

	async function keep(p: Proven) {
		try {
			const done = await api.keepProven(job.id, { of: p.of, socket: p.socket, by: who.name });
			toasts.add('done', done.says);
		} catch (e) {
			refused(e);
		}
	}
</script>

<aside class="no-print grid content-start gap-4">
	{#each r.proven as p (p.of + (p.socket ?? ''))}
		<div class="border-l-4 border-water-4 pl-3" data-testid="proven">
			<p>{p.says}.</p>
			<Quiet aria-label="Keep it on the sheet: {p.says}" onclick={() => keep(p)}
				>Keep it on the sheet as proven</Quiet
			>
		</div>
	{/each}
	{#each job.closed ? [] : r.removed.filter((f) => f.ways) as f (f.item)}
		<p data-testid="old">
			{f.name}{f.serial ? ` ${f.serial}` : ''}:
			{#if f.wiped}
				{f.wiped}
				<Quiet
					aria-label="not after all, {f.name} {f.serial ?? ''}: it is not wiped"
					onclick={() => session.change({ do: 'unwipe', item: f.item })}>not after all</Quiet
				>
			{:else}
				<Quiet
					aria-label="It was wiped: {f.name} {f.serial ?? ''}"
					onclick={() => {
						old = f;
						wiping = true;
					}}>It was wiped…</Quiet
				>
			{/if}
		</p>
	{/each}
	{#if old}
		<Later bind:open={wiping} load={() => import('./Wipe.svelte')} also={{ drive: old }} />
	{/if}
	{#if !job.closed}
		<Button color="alternative" onclick={() => (papers = true)}
			>Warranty, old parts, agreement…</Button
		>
		<Later bind:open={papers} load={() => import('./Papers.svelte')} />
	{/if}
	<Button color={job.closed ? 'primary' : 'alternative'} onclick={() => window.print()}
		>Print the page</Button
	>
	<Button color="alternative" href={resolve('/jobs/[id]/label', { id: job.id })}
		>A label for the machine</Button
	>
	<Button color="alternative" href="/api/jobs/{job.id}/file" data-sveltekit-reload download
		>Save the job file</Button
	>
	{#if job.closed}
		<p class="flex gap-2"><Mark grade="good" /> The job is closed.</p>
		<Button color="alternative" onclick={() => session.change({ do: 'reopen' })}>Reopen it</Button>
		<Button color="alternative" onclick={again}>The machine is here again</Button>
	{:else if later}
		<p>
			{r.open.length === 0 ? 'This stage is finished.' : `${r.open.length} open of this stage.`}
		</p>
		<Button onclick={() => session.change({ do: 'next stage' })} aria-busy={session.busy}
			>Go on to: {later}</Button
		>
	{:else}
		{#if r.warnings > 0}
			<Button color="alternative" onclick={() => session.change({ do: 'accept' })}
				>Accept {r.warnings === 1 ? 'the warning' : `the ${String(r.warnings)} warnings`} of the plan</Button
			>
		{/if}
		<form
			class="grid gap-2"
			onsubmit={(e) => {
				e.preventDefault();
				void session.change({ do: 'close', text: note, sure });
			}}
		>
			<Label for="note">A last word for the owner</Label>
			<Textarea id="note" bind:value={note} rows={3} maxlength={1000} class="w-full" />
			{#if r.open.length > 0}
				<p class="flex gap-2">
					<span class="mt-0.5"><Mark grade="warns" /></span>
					<span
						>{r.open.length} open {r.open.length === 1 ? 'point' : 'points'} will stand on the page.</span
					>
				</p>
			{/if}
			{#if session.view.order.length === 0}
				<Checkbox bind:checked={sure}
					>Nothing was fitted and nothing set: close it all the same</Checkbox
				>
			{/if}
			{#if r.unsaid.length > 0}
				<p class="flex gap-2" data-testid="unsaid">
					<span class="mt-0.5"><Mark grade="stops" /></span>
					<span
						>{r.unsaid.length === 1 ? 'One step is' : `${String(r.unsaid.length)} steps are`} neither
						done nor left out:
						<a class="underline" href={resolve('/jobs/[id]/order', { id: job.id })}>{r.unsaid[0]}</a
						></span
					>
				</p>
			{/if}
			<Button
				type="submit"
				color={session.view.status.go === 'hand over' ? 'primary' : 'alternative'}
				disabled={session.view.order.length === 0 && !sure}
				aria-busy={session.busy}>Close the job</Button
			>
		</form>
	{/if}
	<details>
		<summary class="min-h-11 cursor-pointer py-2 text-soft">Journal</summary>
		<ol class="grid gap-1">
			{#each [...session.now.journal].reverse() as e (e.revision)}
				<li><span class="text-soft">{when(e.at)}, {e.by}:</span> {e.says}</li>
			{/each}
		</ol>
		{#if (session.now.journal[0]?.revision ?? 1) > 1}
			<p class="text-soft">
				The last {session.now.journal.length} changes are shown; the archive of the owner's data has all.
			</p>
		{/if}
	</details>
	{#if job.owner}{#key job.id}<OwnerData owner={job.owner} />{/key}{/if}
</aside>
