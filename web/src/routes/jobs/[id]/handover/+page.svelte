<script lang="ts">
	import { goto } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { Button, Checkbox, Label, Textarea } from 'flowbite-svelte';
	import { api, ApiError } from '$lib/api/client';
	import type { Fitted, Proven } from '$lib/api/types.gen';
	import { useSession } from '$lib/job/session.svelte';
	import OwnerData from '$lib/job/OwnerData.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { when } from '$lib/ui/text';
	import { toasts } from '$lib/ui/toasts.svelte';
	import { who } from '$lib/ui/who.svelte';

	const get = useSession();
	const session = $derived(get());
	const job = $derived(session.job);
	const r = $derived(session.view.report);
	let note = $state('');
	let sure = $state(false);
	const later = $derived(session.view.stages.find((s) => s.at === 1)?.name);
	const unsaid = $derived(
		session.view.order.filter((s) => !session.tick(s.id) && !session.test(s.id))
	);
	const warnings = $derived(
		session.view.planned.findings.filter(
			(f) => f.severity === 'warns' && !f.quiet && !f.missing?.length && !f.accepted
		)
	);

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
			if (!(e instanceof ApiError)) throw e;
			toasts.add('error', e.says);
		}
	}

	async function keep(p: Proven) {
		try {
			const done = await api.keepProven(job.id, { of: p.of, socket: p.socket, by: who.name });
			toasts.add('done', done.says);
		} catch (e) {
			if (!(e instanceof ApiError)) throw e;
			toasts.add('error', e.says);
		}
	}
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

		{#each r.stages as s, i (i)}
			<section class="mt-4 border-l-4 border-line pl-3" aria-label="Stage {i + 1}: {s.name}">
				<h3 class="font-semibold">Stage {i + 1}: {s.name}</h3>
				<p class="text-soft">finished by {s.by}, {when(s.at)}</p>
				<ul>
					{#each s.report.fitted as f (f.item)}
						<li>{f.name} into {f.socket}{f.from ? `, from ${f.from}` : ''}</li>
					{/each}
					{#each s.report.removed as f (f.item)}<li>{f.name} out of {f.from}</li>{/each}
					<li>{s.report.seen.length} lines read off the screens</li>
					{#each s.report.tests as o, n (n)}<li>{o.says}</li>{/each}
					{#each s.report.leftOut as o, n (n)}<li>left out: {o.do}: {o.reason} ({o.by})</li>{/each}
					{#each s.report.open as o, n (n)}<li>open: {o}</li>{/each}
				</ul>
			</section>
		{/each}
		<h3 class="mt-4 font-semibold">Set in the firmware</h3>
		{#if r.set.length === 0}<p>Nothing was changed.</p>{/if}
		<ul>
			{#each r.set as s (s.name)}<li>{s.name}: {s.to} (was {s.from})</li>{/each}
		</ul>

		<h3 class="mt-4 font-semibold">Seen</h3>
		{#if r.seen.length === 0}<p>Nothing has been read off the screens yet.</p>{/if}
		<ul class="sm:columns-2 sm:gap-8">
			{#each r.seen as l (l.id)}
				<li class="flex break-inside-avoid gap-2 py-0.5">
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

		{#if r.tests.length > 0}
			<h3 class="mt-4 font-semibold">Tests</h3>
			<ul class="list-disc pl-5">
				{#each r.tests as o, i (i)}<li>
						{o.says}{o.since ? ` since ${when(o.since)}` : ''}
					</li>{/each}
			</ul>
		{/if}
		{#if r.leftOut.length > 0}
			<h3 class="mt-4 font-semibold">Left out</h3>
			<ul class="list-disc pl-5">
				{#each r.leftOut as o, i (i)}<li>{o.do}: {o.reason} ({o.by})</li>{/each}
			</ul>
		{/if}
		<h3 class="mt-4 font-semibold">Open</h3>
		{#if r.open.length === 0}<p>Nothing.</p>{/if}
		<ul class="list-disc pl-5">
			{#each r.open as o, i (i)}<li>{o}</li>{/each}
		</ul>
		{#if r.accepted.length > 0}
			<h3 class="mt-4 font-semibold">Accepted knowingly</h3>
			<ul class="list-disc pl-5">
				{#each r.accepted as o, i (i)}<li>{o.says} ({o.by}, {when(o.at)})</li>{/each}
			</ul>
		{/if}
		{#if r.notes.length > 0}
			<h3 class="mt-4 font-semibold">Good to know</h3>
			<ul class="list-disc pl-5">
				{#each r.notes as o, i (i)}<li>{o}</li>{/each}
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
		{#each r.proven as p (p.of + (p.socket ?? ''))}
			<div class="border-l-4 border-water-4 pl-3" data-testid="proven">
				<p>{p.says}.</p>
				<button
					class="min-h-11 underline decoration-dotted underline-offset-4 hover:bg-water-1"
					aria-label="Keep it on the sheet: {p.says}"
					onclick={() => keep(p)}>Keep it on the sheet as proven</button
				>
			</div>
		{/each}
		<Button onclick={() => window.print()}>Print the page</Button>
		<Button color="alternative" href="/api/jobs/{job.id}/file" data-sveltekit-reload download
			>Save the job file</Button
		>
		{#if job.closed}
			<p class="flex gap-2"><Mark grade="good" /> The job is closed.</p>
			<Button color="alternative" onclick={() => session.change({ do: 'reopen' })}>Reopen it</Button
			>
			<Button color="alternative" onclick={again}>The machine is here again</Button>
		{:else if later}
			<p>
				{r.open.length === 0 ? 'This stage is finished.' : `${r.open.length} open of this stage.`}
			</p>
			<Button onclick={() => session.change({ do: 'next stage' })} aria-busy={session.busy}
				>Go on to: {later}</Button
			>
		{:else}
			{#if warnings.length > 0}
				<Button color="alternative" onclick={() => session.change({ do: 'accept' })}
					>Accept {warnings.length === 1
						? 'the warning'
						: `the ${String(warnings.length)} warnings`} of the plan</Button
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
				{#if unsaid.length > 0}
					<p class="flex gap-2" data-testid="unsaid">
						<span class="mt-0.5"><Mark grade="stops" /></span>
						<span
							>{unsaid.length === 1 ? 'One step is' : `${String(unsaid.length)} steps are`} neither done
							nor left out:
							<a class="underline" href={resolve('/jobs/[id]/order', { id: job.id })}
								>{unsaid[0]?.do}</a
							></span
						>
					</p>
				{/if}
				<Button
					type="submit"
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
					The last {session.now.journal.length} changes are shown; the archive of the owner's data has
					all.
				</p>
			{/if}
		</details>
		{#if job.owner}{#key job.id}<OwnerData owner={job.owner} />{/key}{/if}
	</aside>
</div>
