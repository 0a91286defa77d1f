<script lang="ts">
	// What the machine is for afterwards: what it starts from, and which drives work together.
	import { Label, Select } from 'flowbite-svelte';
	import type { Start } from '$lib/api/types.gen';
	import Quiet from '$lib/ui/Quiet.svelte';
	import Later from '$lib/ui/Later.svelte';
	import { useDesk } from './desk.svelte';

	const uid = $props.id();
	const desk = useDesk();
	const session = $derived(desk.session);
	const wish = $derived(session.job.wish ?? {});
	const drives = $derived(session.drives);
	const arrays = $derived(session.job.arrays ?? []);
	const choices = $derived([
		{ value: '', name: 'as follows from what the drives hold' },
		...arrays.map((a) => ({ value: `install//${a.id}`, name: `a new install on array ${a.id}` })),
		...drives.flatMap((d) => [
			{ value: `install/${d.id}`, name: `a new install on ${session.called(d.id)}` },
			{ value: `copy/${d.id}`, name: `a copy of the system on ${session.called(d.id)}` },
			{ value: `disk/${d.id}`, name: `the system that is on ${session.called(d.id)}` }
		]),
		{ value: 'nothing', name: 'nothing yet, and that is wanted' }
	]);
	const chosen = $derived(
		wish.starts?.how === undefined
			? ''
			: [
					wish.starts.how,
					wish.starts.item ?? (wish.starts.array ? '' : undefined),
					wish.starts.array
				]
					.filter((x) => x !== undefined)
					.join('/')
	);

	function start(value: string) {
		const [how, item, array] = value.split('/');
		const starts = { how, ...(item && { item }), ...(array && { array }) } as Start;
		const rest = { ...wish, starts: undefined };
		return session.change({ do: 'wish', wish: how ? { ...wish, starts } : rest });
	}

	let making = $state(false);
	let dividing = $state(false);
	let moving = $state(false);
</script>

<section aria-label="Afterwards" data-testid="after">
	<p>
		<span class="text-soft">It starts from:</span>
		{#if session.view.starts}{session.view.starts}{:else}<strong class="text-over"
				>nobody said</strong
			>{/if}
	</p>
	{#if !session.closed}
		<Label for="{uid}s" class="sr-only">What starts it afterwards</Label>
		<Select
			id="{uid}s"
			value={chosen}
			placeholder=""
			items={choices}
			onchange={(e) => start(e.currentTarget.value)}
		/>
	{/if}
	{#each arrays as a (a.id)}
		<p class="mt-2 border-l-4 border-water-4 pl-3">
			{a.id}: level {a.level} of {a.members.map((m) => session.called(m)).join(', ')}
			{#if !session.closed}
				<Quiet
					aria-label="Give it up: {a.id}"
					onclick={() => session.change({ do: 'no array', value: a.id })}>Give it up</Quiet
				>
			{/if}
		</p>
	{/each}
	{#if drives.length > 1 && !session.closed}
		<Quiet class="text-soft" onclick={() => (making = true)}>Use drives together…</Quiet>
	{/if}
	{#each session.job.layouts ?? [] as l (l.item ?? l.array)}
		<p class="mt-2 border-l-4 border-water-4 pl-3">
			{l.item ? session.called(l.item) : `array ${l.array ?? ''}`}: {l.volumes
				.map((v) => [v.label, v.at].filter(Boolean).join(' at '))
				.join(', ')}
		</p>
	{/each}
	{#if drives.length > 0 && !session.closed}
		<Quiet class="text-soft" onclick={() => (dividing = true)}>Volumes…</Quiet>
	{/if}
	{#each session.job.transfers ?? [] as t (t.id)}
		<p class="mt-2 border-l-4 border-water-4 pl-3">
			Data from {session.called(t.from)} onto {session.called(t.to)}: {t.proof
				? 'proved'
				: 'not proved yet'}
		</p>
	{/each}
	{#if drives.length > 1 && !session.closed}
		<Quiet class="text-soft" onclick={() => (moving = true)}>Move data…</Quiet>
	{/if}
	{#if session.view.stages.length === 0 && !session.closed}
		<Quiet class="text-soft" onclick={() => (desk.dialog = 'stage')}>Do it in stages…</Quiet>
	{/if}
</section>

<Later bind:open={dividing} load={() => import('./Volumes.svelte')} />
<Later bind:open={moving} load={() => import('./Moving.svelte')} />
<Later bind:open={making} load={() => import('./MakeArray.svelte')} />
