<script lang="ts">
	// What the machine is for afterwards: what it starts from, and which drives work together.
	import { Button, Checkbox, Label, Select } from 'flowbite-svelte';
	import type { Start, DriveArray } from '$lib/api/types.gen';
	import Quiet from '$lib/ui/Quiet.svelte';
	import Dialog from '$lib/ui/Dialog.svelte';
	import { useDesk } from './desk.svelte';

	const uid = $props.id();
	const desk = useDesk();
	const session = $derived(desk.session);
	const wish = $derived(session.job.wish ?? {});
	const drives = $derived(
		session.job.items.filter((i) => {
			const d = session.part(i.part)?.drive;
			return d && d.form !== 'slim' && d.form !== '5.25in';
		})
	);
	const called = (id: string) =>
		[session.partOf(id)?.name, session.item(id)?.serial].filter(Boolean).join(' ');
	const arrays = $derived(session.job.arrays ?? []);
	const modes = $derived(
		session.job.sheet.settings.flatMap((s) =>
			s.options.map((o) => ({ value: `${s.id}=${o.value}`, name: `${s.name}: ${o.name}` }))
		)
	);
	const choices = $derived([
		{ value: '', name: 'as follows from what the drives hold' },
		...arrays.map((a) => ({ value: `install//${a.id}`, name: `a new install on array ${a.id}` })),
		...drives.flatMap((d) => [
			{ value: `install/${d.id}`, name: `a new install on ${called(d.id)}` },
			{ value: `copy/${d.id}`, name: `a copy of the system on ${called(d.id)}` },
			{ value: `disk/${d.id}`, name: `the system that is on ${called(d.id)}` }
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
	let level = $state<DriveArray['level']>('1');
	let mode = $state('');
	let members = $state<string[]>([]);

	function begin() {
		members = [];
		mode = modes.find((m) => /=(raid|array)/i.test(m.value))?.value ?? '';
		making = true;
	}
	async function make(e: SubmitEvent) {
		e.preventDefault();
		const taken = arrays.map((a) => a.id);
		let n = 1;
		while (taken.includes(`array-${String(n)}`)) n++;
		const [setting, value] = mode.split('=');
		const array = {
			id: `array-${String(n)}`,
			level,
			members,
			...(setting && value && { mode: { setting, value } })
		};
		if (await session.change({ do: 'array', array })) making = false;
	}
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
			{a.id}: level {a.level} of {a.members.map(called).join(', ')}
			{#if !session.closed}
				<Quiet
					aria-label="Give it up: {a.id}"
					onclick={() => session.change({ do: 'no array', value: a.id })}>Give it up</Quiet
				>
			{/if}
		</p>
	{/each}
	{#if drives.length > 1 && !session.closed}
		<Quiet class="text-soft" onclick={begin}>Make an array…</Quiet>
	{/if}
	{#if session.view.stages.length === 0 && !session.closed}
		<Quiet class="text-soft" onclick={() => (desk.dialog = 'stage')}>Do it in stages…</Quiet>
	{/if}
</section>

<Dialog bind:open={making} title="Make an array">
	<form class="grid gap-3" onsubmit={make} aria-label="Make an array">
		<p class="border-l-4 border-over bg-overtint p-3">
			Making it erases every member. The system shows the array as one disk.
		</p>
		<div>
			<Label for="{uid}l">Level</Label>
			<Select
				id="{uid}l"
				bind:value={level}
				placeholder=""
				items={[
					{ value: '0', name: '0: stripe, all of the room, one fault loses all' },
					{ value: '1', name: '1: mirror, the room of one' },
					{ value: '5', name: '5: parity, the room of all but one' },
					{ value: '10', name: '10: stripe of mirrors, half the room' }
				]}
			/>
		</div>
		<fieldset>
			<legend>Members</legend>
			{#each drives as d (d.id)}
				<Checkbox bind:group={members} value={d.id}
					>{called(d.id)}{d.holds && d.holds !== 'blank'
						? `, holds ${d.holds === 'data' ? 'data' : 'a system'}`
						: ''}</Checkbox
				>
			{/each}
		</fieldset>
		{#if modes.length > 0}
			<div>
				<Label for="{uid}m">The setting that firmware needs for it</Label>
				<Select
					id="{uid}m"
					bind:value={mode}
					placeholder=""
					items={[{ value: '', name: 'not known' }, ...modes]}
				/>
			</div>
		{/if}
		<div class="flex gap-3">
			<Button type="submit" disabled={members.length < 2} aria-busy={session.busy}>Make it</Button>
			<Button color="alternative" onclick={() => (making = false)}>Cancel</Button>
		</div>
	</form>
</Dialog>
