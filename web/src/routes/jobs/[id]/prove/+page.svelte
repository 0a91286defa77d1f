<script lang="ts">
	import { resolve } from '$app/paths';
	import { Button } from 'flowbite-svelte';
	import type { Line } from '$lib/api/types.gen';
	import AsItCame from '$lib/job/AsItCame.svelte';
	import LineRow from '$lib/job/LineRow.svelte';
	import { useSession } from '$lib/job/session.svelte';

	const get = useSession();
	const session = $derived(get());
	const lines = $derived(session.view.lines);
	const screens = [
		{
			id: 'set-up',
			title: 'In set-up',
			where:
				'The first picture, then the pages for memory, storage and settings. Read all of it, then press once; type what is otherwise.'
		},
		{
			id: 'system',
			title: 'In the running system',
			where:
				'The system’s own pages for memory, for disks, and for the links of devices. Read links while the drive works.'
		}
	] as const;
	const confirmable = (some: readonly Line[]) =>
		some.filter((l) => l.verdict === 'not looked at' && l.exact).map((l) => l.id);
	const key = $derived(session.job.sheet.firmware?.setupKey);
</script>

<svelte:head><title>Prove: {session.job.title} · Deep Bay</title></svelte:head>

<p class="py-2" role="status" data-testid="tally">
	{session.view.read}
</p>
{#if lines.length === 0}
	<p class="py-8">
		Nothing is expected yet. <a
			class="underline"
			href={resolve('/jobs/[id]/fit', { id: session.job.id })}>Plan the fit first</a
		>.
	</p>
{/if}
<AsItCame />
{#each screens as s (s.id)}
	{@const own = lines.filter((l) => l.screen === s.id && l.verdict !== 'not asked')}
	{@const asked = own.filter((l) => l.touched || l.reading || l.was)}
	{@const rest = own.filter((l) => !asked.includes(l))}
	{@const open = confirmable(own)}
	{#if own.length > 0}
		<section aria-labelledby="{s.id}-h" class="pb-6" data-screen={s.id}>
			<div class="flex flex-wrap items-center gap-x-4 gap-y-1 border-b-2 border-ink pb-1">
				<h2 id="{s.id}-h" class="text-xl">
					{s.title}
					{#if s.id === 'set-up' && key}<span class="text-base font-normal text-soft"
							>reached with {key}</span
						>{/if}
				</h2>
				<span class="grow"></span>
				{#if open.length > 0 && !session.closed}
					<Button onclick={() => session.change({ do: 'confirm', lines: open })}
						>{open.length < own.length ? `The other ${String(open.length)}` : 'Everything'}
						{s.id === 'set-up' ? 'in set-up' : 'in the system'} as expected</Button
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
		</section>
	{/if}
{/each}

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
