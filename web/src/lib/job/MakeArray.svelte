<script lang="ts">
	// What some drives come to together, level by level, with what each risks; one is made.
	import {
		Button,
		Checkbox,
		Input,
		Label,
		Radio,
		Select,
		TableBodyCell,
		TableBodyRow
	} from 'flowbite-svelte';
	import { refusal } from '$lib/api/refused';
	import type { ArrayChoices, DriveArray } from '$lib/api/types.gen';
	import { arrays as ask } from '$lib/measure/api';
	import Dialog from '$lib/ui/Dialog.svelte';
	import Table from '$lib/ui/Table.svelte';
	import { useDesk } from './desk.svelte';

	let { open = $bindable() }: { open: boolean } = $props();
	const uid = $props.id();
	const desk = useDesk();
	const session = $derived(desk.session);
	const drives = $derived(session.drives);
	const modes = $derived(
		session.job.sheet.settings.flatMap((s) =>
			s.options.map((o) => ({ value: `${s.id}=${o.value}`, name: `${s.name}: ${o.name}` }))
		)
	);
	const heads = ['Level', 'Room', 'Reads', 'Writes', 'Loses data', 'When one fails'].map(
		(text) => ({ text })
	);
	let level = $state('');
	let members = $state<string[]>([]);
	let mode = $state('');
	let by = $state<'firmware' | 'system'>('firmware');
	let perYear = $state('1.5');
	let hours = $state('24');
	let years = $state('5');
	let choices = $state.raw<ArrayChoices>();
	let wrong = $state('');
	/** It came with the machine and keeps its data; else making it erases its members. */
	let came = $state(false);
	let agreed = $state(false);
	const holding = $derived(
		drives.filter((d) => members.includes(d.id) && d.holds && d.holds !== 'blank')
	);

	$effect(() => {
		if (open) {
			members = [];
			level = '';
			came = agreed = false;
			mode = modes.find((m) => /=(raid|array)/i.test(m.value))?.value ?? '';
		}
	});
	// Whatever is asked may be answered late: the last question counts.
	let asked = 0;
	$effect(() => {
		const mine = ++asked;
		const risk = { perYear: share(perYear), hours, years };
		if (members.length < 2) choices = undefined;
		else
			ask(session.job.id, members, risk).then(
				(c) => {
					if (mine === asked) [choices, wrong] = [c, ''];
				},
				(e: unknown) => {
					if (mine === asked) wrong = refusal(e).says;
				}
			);
	});
	/** What is typed in percent, as a share; what is no number goes as it stands, and is refused. */
	function share(text: string): string {
		const n = Number(text.replace(',', '.'));
		return Number.isFinite(n) && text !== '' ? String(n / 100) : text;
	}

	async function make(e: SubmitEvent) {
		e.preventDefault();
		const taken = (session.job.arrays ?? []).map((a) => a.id);
		let n = 1;
		while (taken.includes(`array-${String(n)}`)) n++;
		const [setting, value] = mode.split('=');
		const array = {
			id: `array-${String(n)}`,
			level: level as DriveArray['level'],
			members,
			by,
			...(came && { came }),
			...(by === 'firmware' && setting && value && { mode: { setting, value } })
		};
		if (
			level === 'apart' ||
			(await session.change({ do: 'array', array, ...(agreed && { sure: true }) }))
		)
			open = false;
	}
</script>

<Dialog bind:open title="Use drives together" size="lg">
	<form class="grid gap-3" onsubmit={make} aria-label="Use drives together">
		<fieldset class="flex flex-wrap gap-x-6">
			<legend>Which drives</legend>
			{#each drives as d (d.id)}
				<Checkbox bind:group={members} value={d.id}
					>{session.called(d.id)}{d.holds && d.holds !== 'blank'
						? `, holds ${d.holds === 'data' ? 'data' : 'a system'}`
						: ''}</Checkbox
				>
			{/each}
		</fieldset>
		{#if choices === undefined}
			<p class="text-soft">Choose two or more to see what they come to.</p>
		{:else}
			<div data-testid="levels">
				<Table caption="What they come to" {heads} reach>
					{#each choices.offers as o (o.level)}
						<TableBodyRow>
							<TableBodyCell class="min-w-40 align-top"
								><Radio bind:group={level} value={o.level}>{o.name}</Radio></TableBodyCell
							>
							<TableBodyCell class="align-top">{o.usable}</TableBodyCell>
							<TableBodyCell class="align-top">{o.reads}</TableBodyCell>
							<TableBodyCell class="align-top">{o.writes}</TableBodyCell>
							<TableBodyCell class="align-top">{o.loses}</TableBodyCell>
							<TableBodyCell class="align-top"
								>{o.oneGone}
								{#if level === o.level}
									{#each o.notes as n, i (i)}<span class="block text-soft">{n}</span>{/each}
								{/if}</TableBodyCell
							>
						</TableBodyRow>
					{/each}
				</Table>
			</div>
			<div class="grid grid-cols-3 gap-3">
				<div>
					<Label for="{uid}p">A drive fails, % a year</Label>
					<Input id="{uid}p" inputmode="decimal" bind:value={perYear} />
				</div>
				<div>
					<Label for="{uid}h">Hours until replaced</Label>
					<Input id="{uid}h" inputmode="decimal" bind:value={hours} />
				</div>
				<div>
					<Label for="{uid}y">Years it is to last</Label>
					<Input id="{uid}y" inputmode="decimal" bind:value={years} />
				</div>
			</div>
			<p class="text-soft">{choices.says}</p>
		{/if}
		{#if wrong}<p role="alert" class="border-l-4 border-over bg-overtint p-2">{wrong}</p>{/if}
		{#if level && level !== 'apart'}
			<Checkbox bind:checked={came}>It is there already, with its data: keep it</Checkbox>
			{#if !came}
				<p class="border-l-4 border-over bg-overtint p-3">
					Making it erases every member. The system shows the array as one disk. Have a copy of what
					must stay that was read back, and disconnect it before anything is made.
				</p>
				{#if holding.length > 0}
					<Checkbox bind:checked={agreed}
						>Everything on {holding.map((d) => session.called(d.id)).join(', ')} may be erased: this was
						agreed</Checkbox
					>
				{/if}
			{/if}
			<fieldset class="grid gap-2 sm:grid-cols-2">
				<legend>Who makes it</legend>
				{#each choices?.makers ?? [] as m (m.by)}
					<div>
						<Radio bind:group={by} value={m.by} classes={{ label: 'min-h-11' }}>{m.name}</Radio>
						<ul class="list-disc pl-5 text-soft">
							{#each m.says as s, i (i)}<li>{s}</li>{/each}
						</ul>
					</div>
				{/each}
			</fieldset>
			{#if modes.length > 0 && by === 'firmware'}
				<div>
					<Label for="{uid}m">The setting that firmware needs for it</Label>
					<Select
						id="{uid}m"
						bind:value={mode}
						placeholder=""
						items={[{ value: '', name: 'none that the sheet knows' }, ...modes]}
					/>
				</div>
			{/if}
		{/if}
		<div class="flex gap-3">
			<Button type="submit" disabled={members.length < 2 || !level} aria-busy={session.busy}
				>{level === 'apart' ? 'Leave them apart' : came ? 'Keep it' : 'Make it'}</Button
			>
			<Button color="alternative" onclick={() => (open = false)}>Cancel</Button>
		</div>
	</form>
</Dialog>
