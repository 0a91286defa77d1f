<script lang="ts">
	import { Button, Label, Textarea } from 'flowbite-svelte';
	import type { Fitted } from '$lib/api/types.gen';
	import { useSession } from '$lib/job/session.svelte';
	import OwnerData from '$lib/job/OwnerData.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { when } from '$lib/ui/text';

	const get = useSession();
	const session = $derived(get());
	const job = $derived(session.job);
	const r = $derived(session.view.report);
	let note = $state('');
</script>

<svelte:head><title>Hand over: {session.job.title} · Deep Bay</title></svelte:head>

{#snippet pieces(title: string, list: readonly Fitted[])}
	{#if list.length > 0}
		<h3 class="mt-4 font-semibold">{title}</h3>
		<table class="w-full table-fixed border-collapse text-left">
			<thead>
				<tr class="border-b border-line text-soft">
					<th class="py-1 pr-3 font-normal">part</th>
					<th class="pr-3 font-normal">number, serial</th>
					<th class="w-[22%] pr-3 font-normal">where</th>
					<th class="font-normal">runs at</th>
				</tr>
			</thead>
			<tbody>
				{#each list as f (f.item)}
					<tr class="border-b border-line align-top">
						<td class="py-1 pr-3"><strong>{f.name}</strong><br />{f.what}</td>
						<td class="pr-3">{f.number}<br />{f.serial}</td>
						<td class="pr-3"
							>{f.socket}{f.from ? (f.socket ? `, was in ${f.from}` : `was in ${f.from}`) : ''}</td
						>
						<td>{f.runs}</td>
					</tr>
				{/each}
			</tbody>
		</table>
	{/if}
{/snippet}

<div class="grid gap-8 lg:grid-cols-[1fr_18rem] print:block">
	<article
		class="border border-line bg-raised p-6 print:border-0 print:p-0"
		aria-label="Hand-over page"
	>
		<header class="flex flex-wrap items-start justify-between gap-4 border-b-2 border-ink pb-3">
			<div>
				<h2 class="text-2xl">{job.title}</h2>
				<p>{[job.tag, job.sheet.name, job.owner].filter(Boolean).join(' · ')}</p>
			</div>
			<p class="text-right">
				came in {when(job.arrived)}<br />
				{#if r.from}worked on {when(r.from)} to {when(r.to)}<br />{/if}
				{#if r.hands.length > 0}by {r.hands.join(', ')}{/if}
			</p>
		</header>
		{#if job.wish?.text}<p class="mt-3">Asked for: “{job.wish.text}”</p>{/if}
		{@render pieces('Fitted', r.fitted)}
		{@render pieces('Taken out', r.removed)}
		{@render pieces('Stayed where it was', r.stayed)}
		<p class="mt-3">
			Memory now: <strong>{session.view.planned.memory.total}</strong>,
			{session.view.planned.memory.speed}, {session.view.planned.memory.spread}
		</p>

		<h3 class="mt-4 font-semibold">Set in the firmware</h3>
		{#if r.set.length === 0}<p>Nothing was changed.</p>{/if}
		<ul>
			{#each r.set as s (s.name)}<li>{s.name}: {s.to} (was {s.from})</li>{/each}
		</ul>

		<h3 class="mt-4 font-semibold">Seen</h3>
		{#if r.seen.length === 0}<p>Nothing has been read off the screens yet.</p>{/if}
		<ul>
			{#each r.seen as l (l.id)}
				<li class="flex gap-2 py-0.5">
					<Mark
						grade={l.verdict === 'agrees' ? 'good' : l.verdict === 'differs' ? 'stops' : 'notes'}
						size={18}
						label={l.verdict}
					/>
					<span
						>{l.about}: {l.seen}, {l.verdict}{l.verdict === 'agrees' || l.verdict === 'noted'
							? ''
							: `, expected ${l.expected}`}{l.reason ? `: ${l.reason}` : ''}</span
					>
				</li>
			{/each}
		</ul>

		<h3 class="mt-4 font-semibold">Open</h3>
		{#if r.open.length === 0}<p>Nothing.</p>{/if}
		<ul class="list-disc pl-5">
			{#each r.open as o, i (i)}<li>{o}</li>{/each}
		</ul>
		{#if r.agreed.length > 0}
			<h3 class="mt-4 font-semibold">Known and accepted</h3>
			<ul class="list-disc pl-5">
				{#each r.agreed as o, i (i)}<li>{o}</li>{/each}
			</ul>
		{/if}
		{#if job.closed}
			<p class="mt-5 border-t-2 border-ink pt-2">
				Closed by <strong>{job.closed.by}</strong>, {when(job.closed.at)}{job.closed.note
					? `: ${job.closed.note}`
					: ''}
			</p>
		{/if}
		{#if r.removed.some((f) => session.partOf(f.item)?.drive)}
			<p class="mt-3">
				The drive taken out still holds its data: wipe, keep or hand it back by the owner's policy
				and local law.
			</p>
		{/if}
	</article>
	<aside class="no-print grid content-start gap-4">
		<Button onclick={() => window.print()}>Print the page</Button>
		<Button color="alternative" href="/api/jobs/{job.id}/file" data-sveltekit-reload download
			>Save the job file</Button
		>
		{#if job.closed}
			<p class="flex gap-2"><Mark grade="good" /> The job is closed.</p>
			<Button color="alternative" onclick={() => session.change({ do: 'reopen' })}>Reopen it</Button
			>
		{:else}
			<form
				class="grid gap-2"
				onsubmit={(e) => {
					e.preventDefault();
					void session.change({ do: 'close', text: note });
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
				<Button type="submit" aria-busy={session.busy}>Close the job</Button>
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
					The last {session.now.journal.length} changes are shown; the archive of the owner's data has
					all.
				</p>
			{/if}
		</details>
		{#if job.owner}{#key job.id}<OwnerData owner={job.owner} />{/key}{/if}
	</aside>
</div>
