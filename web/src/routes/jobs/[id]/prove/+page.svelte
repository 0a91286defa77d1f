<script lang="ts">
	import { resolve } from '$app/paths';
	import { Button } from 'flowbite-svelte';
	import { refused } from '$lib/api/refused';
	import type { Line, TroubleView } from '$lib/api/types.gen';
	import Thumb from '$lib/chart/Thumb.svelte';
	import AsItCame from '$lib/job/AsItCame.svelte';
	import LineRow from '$lib/job/LineRow.svelte';
	import { useSession } from '$lib/job/session.svelte';
	import * as api from '$lib/prove/api';
	import { Bench } from '$lib/prove/bench.svelte';
	import Read from '$lib/prove/Read.svelte';
	import Simulated from '$lib/prove/Simulated.svelte';
	import Trouble from '$lib/prove/Trouble.svelte';
	import Quiet from '$lib/ui/Quiet.svelte';

	const get = useSession();
	const session = $derived(get());
	const lines = $derived(session.view.lines);
	const screens = [
		{
			id: 'set-up',
			title: 'In set-up',
			short: 'in set-up',
			where:
				'The first picture, then the pages for memory, storage and settings. Read all of it, then press once; type what is otherwise.'
		},
		{
			id: 'boot-list',
			title: 'In the boot list',
			short: 'in the boot list',
			where: 'What firmware offers to start. A drive without a system is not in it.'
		},
		{
			id: 'installer',
			title: 'In the installer’s list',
			short: 'in the installer',
			where: 'Before anything is written: sizes tell drives apart there.'
		},
		{
			id: 'system',
			title: 'In the running system',
			short: 'in the system',
			where:
				'The system’s own pages for memory, for disks, and for the links of devices. Read links while the drive works.'
		}
	] as const;
	/** Differences first, then what nobody read. */
	const rank = (l: Line) => (l.verdict === 'differs' ? 0 : l.verdict === 'not looked at' ? 1 : 2);
	const confirmable = (some: readonly Line[]) =>
		some.filter((l) => l.verdict === 'not looked at' && l.exact).map((l) => l.id);

	/** Settings that this job changes come before the screens that show what they do. */
	const toSet = $derived(lines.filter((l) => l.id.startsWith('setting/') && l.touched));
	const bench = new Bench(get().job.id);
	let view = $state.raw<TroubleView>();
	const odd = $derived(lines.filter((l) => l.verdict === 'differs'));
	// Whatever changes in the job may change what is wrong.
	$effect(() => {
		void session.now.revision;
		api.trouble(session.job.id).then((v) => (view = v), refused);
	});
	// Steps that hands did are done on the simulated machine too.
	$effect(() => {
		void session.now.revision;
		void bench.look();
	});
	const wrong = $derived(
		view !== undefined && (view.trouble.differs.length > 0 || view.checked.length > 0)
	);
	const marked = $derived(
		odd.flatMap((l) => {
			const place = l.id.split('/')[1];
			return place ? [place] : [];
		})
	);
</script>

<svelte:head><title>Prove: {session.job.title} · Deep Bay</title></svelte:head>

<div class="flex flex-wrap items-center gap-x-6">
	<p class="py-2" role="status" data-testid="tally">
		{session.view.read}
	</p>
	<span class="grow"></span>
	{#if marked.length > 0}
		<figure class="w-40">
			<Thumb sheet={session.job.sheet} {marked} />
			<figcaption class="text-center text-soft">
				differs at {[...new Set(marked)].join(', ')}
			</figcaption>
		</figure>
	{/if}
</div>
{#if lines.length === 0}
	<p class="py-8">
		Nothing is expected yet. <a
			class="underline"
			href={resolve('/jobs/[id]/fit', { id: session.job.id })}>Plan the fit first</a
		>.
	</p>
{/if}
<Read {view} />
{#if wrong && view}<Trouble {view} {bench} />{/if}
{#each view?.cures ?? [] as c (c.id)}
	<p
		class="flex flex-wrap items-center gap-x-3 border-l-4 border-water-4 py-1 pl-3"
		data-testid="cure"
	>
		<span class="first-letter:uppercase">{c.of.says}:</span>
		{#if c.ended}
			<span>put right, by {c.by}. Read again what differed.</span>
		{:else}
			<a class="min-h-11 py-2.5 underline" href={resolve('/jobs/[id]/step', { id: session.job.id })}
				>{c.done} of {c.steps} steps of its cure are done</a
			>
			{#if c.done === 0 && !session.closed}
				<Quiet onclick={() => session.change({ do: 'uncure', value: String(c.id) })}
					>Drop this cure</Quiet
				>
			{/if}
		{/if}
	</p>
{/each}
<AsItCame />
{#if toSet.length > 0}
	<section aria-labelledby="to-set" class="pb-6" data-testid="to-set">
		<h2 id="to-set" class="border-b-2 border-ink pb-1 text-xl">Settings to make</h2>
		<ul>
			{#each toSet as l (l.id)}{@render row(l)}{/each}
		</ul>
	</section>
{/if}
{#each screens as s (s.id)}
	{@const own = lines.filter(
		(l) => l.screen === s.id && l.verdict !== 'not asked' && !toSet.includes(l)
	)}
	{@const extra = lines.filter((l) => l.screen === s.id && l.verdict === 'not asked' && l.extra)}
	{@const asked = own
		.filter((l) => l.touched || l.reading || l.was)
		.toSorted((a, b) => rank(a) - rank(b))}
	{@const rest = own.filter((l) => !asked.includes(l))}
	{@const whole = s.id === 'set-up' ? [...toSet, ...own] : own}
	{@const open = confirmable(whole)}
	{#if whole.length + extra.length > 0}
		<section aria-labelledby="{s.id}-h" class="pb-6" data-screen={s.id}>
			<div class="flex flex-wrap items-center gap-x-4 gap-y-1 border-b-2 border-ink pb-1">
				<h2 id="{s.id}-h" class="text-xl">
					{s.title}
				</h2>
				<span class="grow"></span>
				{#if open.length > 0 && !session.closed}
					<Button onclick={() => session.change({ do: 'confirm', lines: open })}
						>{open.length < whole.length ? `The other ${String(open.length)}` : 'Everything'}
						{s.short} as expected</Button
					>
				{/if}
			</div>
			<p class="max-w-prose pt-1 text-soft">{s.where}</p>
			<ul>
				{#each asked as l (l.id)}{@render row(l)}{/each}
			</ul>
			{#if rest.length > 0}
				<details data-testid="rest">
					<summary class="min-h-11 cursor-pointer py-2.5">
						{rest.length === 1 ? 'One line' : `${String(rest.length)} lines`} of what this job does not
						touch{#if confirmable(rest).length > 0}, {confirmable(rest).length} to read{/if}
					</summary>
					<ul>
						{#each rest as l (l.id)}{@render row(l)}{/each}
					</ul>
				</details>
			{/if}
			{#if extra.length > 0}
				<details data-testid="extra">
					<summary class="min-h-11 cursor-pointer py-2.5">
						{own.length > 0 ? 'Also there' : 'What stands there'}, where something is in doubt: {extra.length}
						{extra.length === 1 ? 'line' : 'lines'}
					</summary>
					<ul>
						{#each extra as l (l.id)}{@render row(l)}{/each}
					</ul>
				</details>
			{/if}
		</section>
	{/if}
{/each}
<Simulated {bench} />

{#snippet row(l: Line)}
	<LineRow
		line={l}
		locked={session.closed}
		onconfirm={() => session.change({ do: 'confirm', line: l.id })}
		onread={(text) => session.change({ do: 'read', line: l.id, text })}
		onforget={() => session.change({ do: 'forget', line: l.id })}
		onexplain={(text) => session.change({ do: 'explain', line: l.id, text })}
	/>
{/snippet}
