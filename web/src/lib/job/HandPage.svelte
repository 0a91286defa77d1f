<script lang="ts">
	// The page that goes with the machine, as it is printed.
	import { TableBodyCell, TableBodyRow } from 'flowbite-svelte';
	import type { Fitted } from '$lib/api/types.gen';
	import Fetched from '$lib/ui/Fetched.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import GainList from './GainList.svelte';
	import Table from '$lib/ui/Table.svelte';
	import { when } from '$lib/ui/text';
	import { useSession } from './session.svelte';

	const get = useSession();
	const session = $derived(get());
	const job = $derived(session.job);
	const r = $derived(session.view.report);
</script>

{#snippet pieces(title: string, list: readonly Fitted[])}
	{#if list.length > 0}
		<h3 class="mt-4 font-semibold">{title}</h3>
		<Table
			caption={title}
			class="table-fixed wrap-anywhere"
			heads={[
				{ text: 'part' },
				{ text: 'number, serial' },
				{ text: 'where', class: 'w-[22%] max-sm:w-[26%]' },
				{ text: 'runs at' }
			]}
		>
			{#each list as f (f.item)}
				<TableBodyRow>
					<TableBodyCell><strong>{f.name}</strong><br />{f.what}</TableBodyCell>
					<TableBodyCell
						>{f.number}<br />{f.serial}{#if f.papers}<br />{f.papers}{/if}</TableBodyCell
					>
					<TableBodyCell
						>{f.socket}{f.from
							? f.socket
								? `, was in ${f.from}`
								: `was in ${f.from}`
							: ''}</TableBodyCell
					>
					<TableBodyCell>{f.runs ?? [f.wiped, f.went].filter(Boolean).join('; ')}</TableBodyCell>
				</TableBodyRow>
			{/each}
		</Table>
	{/if}
{/snippet}

<article
	class="border border-line bg-raised p-6 max-sm:p-3 print:border-0 print:p-0"
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
		Memory now: <strong>{session.view.planned.memory.says}</strong>
	</p>

	{#if r.gained.length > 0}
		<section aria-labelledby="gained-h" data-testid="gained">
			<h3 id="gained-h" class="mt-4 font-semibold">Before and after</h3>
			<GainList gained={r.gained} />
		</section>
	{/if}

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
	{#if r.set.length === 0}
		<p class="mt-3"><strong>Set in the firmware:</strong> Nothing was changed.</p>
	{:else}
		<h3 class="mt-4 font-semibold">Set in the firmware</h3>
		<ul>
			{#each r.set as s (s.name)}<li>{s.name}: {s.to} (was {s.from})</li>{/each}
		</ul>
	{/if}

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
	{#if r.open.length === 0}
		<p class="mt-3"><strong>Open</strong> Nothing.</p>
	{:else}
		<h3 class="mt-4 font-semibold">Open</h3>
		<ul class="list-disc pl-5">
			{#each r.open as o, i (i)}<li>{o}</li>{/each}
		</ul>
	{/if}
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
	{#if r.room.length > 0}
		<p class="mt-3"><strong>Room for more:</strong> {r.room.join(' ')}</p>
	{/if}
	{#if job.agreed}
		<p class="mt-3">
			<strong>Agreed:</strong>
			{job.agreed.owner}, {when(job.agreed.at)} ({job.agreed.by})
		</p>
	{/if}
	{#if job.closed}
		<p class="mt-5 border-t-2 border-ink pt-2">
			Closed by <strong>{job.closed.by}</strong>, {when(job.closed.at)}{job.closed.note
				? `: ${job.closed.note}`
				: ''}
		</p>
	{/if}
	{#each r.cautions as c, i (i)}<p class="mt-3">{c}</p>{/each}
	<div class="mt-5 hidden break-inside-avoid grid-cols-2 gap-12 print:grid">
		<p class="border-t border-ink pt-1">Received as described: name, signature</p>
		<p class="border-t border-ink pt-1">Day, place</p>
	</div>
	<Fetched load={() => import('$lib/step/PhotoPage.svelte')} also={{ job: job.id }} />
</article>
