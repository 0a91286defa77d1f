<script lang="ts">
	// The page for the owner: what was done in plain words, what the machine can do now, and what to
	// know. What only the shop needs is on the shop's sheet.
	import GainList from './GainList.svelte';
	import { day, when } from '$lib/ui/text';
	import { useSession } from './session.svelte';

	const get = useSession();
	const session = $derived(get());
	const job = $derived(session.job);
	const r = $derived(session.view.report);
	const papers = $derived(r.fitted.filter((f) => f.papers));
	const out = $derived(r.removed.filter((f) => f.went || f.wiped));
</script>

<article
	class="border border-line bg-raised p-6 text-[1.06rem] leading-relaxed max-sm:p-3 print:border-0 print:p-0 print:text-[13px]"
	aria-label="Page for the owner"
>
	<header class="border-b-2 border-ink pb-3">
		<h2 class="text-2xl">{job.title}</h2>
		<p>{[job.owner, job.tag].filter(Boolean).join(' · ')}</p>
		<p class="text-soft">
			{r.from ? `${when(r.from)} to ${when(r.to)}` : ''}{r.hands.length > 0
				? `, by ${r.hands.join(', ')}`
				: ''}
		</p>
	</header>
	{#if job.wish?.text}<p class="mt-3">You asked for: “{job.wish.text}”</p>{/if}
	<h3 class="mt-4 font-semibold">What was done</h3>
	{#if r.plain.length === 0}<p>Nothing was changed in it.</p>{/if}
	<ul class="list-disc pl-5" data-testid="plain">
		{#each r.plain as p, i (i)}<li>{p}</li>{/each}
	</ul>
	{#if r.gained.length > 0}
		<h3 class="mt-4 font-semibold">What that brought, as it was measured</h3>
		<GainList gained={r.gained} />
	{/if}
	{#if r.notes.length > 0}
		<h3 class="mt-4 font-semibold">Good to know</h3>
		<ul class="list-disc pl-5">
			{#each r.notes as o, i (i)}<li>{o}</li>{/each}
		</ul>
	{/if}
	{#if r.accepted.length > 0}
		<h3 class="mt-4 font-semibold">Agreed before the work</h3>
		<ul class="list-disc pl-5">
			{#each r.accepted as o, i (i)}<li>{o.says}</li>{/each}
		</ul>
	{/if}
	{#if r.open.length > 0}
		<h3 class="mt-4 font-semibold">Still to be seen to</h3>
		<ul class="list-disc pl-5">
			{#each r.open as o, i (i)}<li>{o}</li>{/each}
		</ul>
	{/if}
	{#if papers.length > 0}
		<h3 class="mt-4 font-semibold">Warranty and returns</h3>
		<ul class="list-disc pl-5">
			{#each papers as f (f.item)}<li>
					{f.name}{f.serial ? `, serial number ${f.serial}` : ''}: {f.papers}
				</li>{/each}
		</ul>
	{/if}
	{#if out.length > 0}
		<h3 class="mt-4 font-semibold">Old parts</h3>
		<ul class="list-disc pl-5">
			{#each out as f (f.item)}<li>
					{f.name}{f.serial ? `, serial number ${f.serial}` : ''}: {[f.went, f.wiped]
						.filter(Boolean)
						.join('; ')}
				</li>{/each}
		</ul>
	{/if}
	{#if r.room.length > 0}
		<p class="mt-4"><strong>Room for more:</strong> {r.room.join(' ')}</p>
	{/if}
	{#each r.cautions as c, i (i)}
		<p class="mt-3 border-l-4 border-over pl-3">{c}</p>
	{/each}
	{#if job.closed?.note}<p class="mt-4">{job.closed.note}</p>{/if}
	{#if job.agreed}
		<p class="mt-4 border-t-2 border-ink pt-2">
			{job.agreed.owner} agreed to what was done, {day((job.agreed.at ?? '').slice(0, 10))}.
		</p>
	{/if}
	<div class="mt-8 hidden break-inside-avoid grid-cols-2 gap-12 print:grid">
		<p class="border-t border-ink pt-1">Received as described: name, signature</p>
		<p class="border-t border-ink pt-1">Day, place</p>
	</div>
</article>
