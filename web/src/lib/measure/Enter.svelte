<script lang="ts">
	// A series is typed: what, before or after, the runs. The server reads it as it reads a file.
	import { Button, Input, Label, Select, Textarea } from 'flowbite-svelte';
	import { refusal } from '$lib/api/refused';
	import type { Gains, Series } from '$lib/api/types.gen';
	import { useSession } from '$lib/job/session.svelte';
	import Dialog from '$lib/ui/Dialog.svelte';
	import * as api from './api';

	interface Props {
		open: boolean;
		whats: Gains['whats'];
		/** Series that a file held, to be told of which drive they are; none where one is typed. */
		read: Series[];
	}
	let { open = $bindable(), whats, read = $bindable() }: Props = $props();
	const uid = $props.id();
	const get = useSession();
	const session = $derived(get());
	let what = $state<string>('load');
	let side = $state<'before' | 'after'>(get().job.done.length === 0 ? 'before' : 'after');
	let of = $state('');
	let subject = $state('');
	let block = $state('1 MiB');
	let depth = $state('8');
	let runs = $state('');
	let room = $state('');
	let wrong = $state<string[]>([]);
	const asked = $derived(whats.find((w) => w.what === what));
	const rates = $derived(read.length > 0 || asked?.rate === true);
	const drives = $derived(session.job.items.filter((i) => session.part(i.part)?.drive));
	const subjects = $derived([
		{ value: '', name: 'not said' },
		...drives.map((d) => ({ value: d.id, name: session.called(d.id) })),
		...(session.job.arrays ?? []).map((a) => ({ value: 'array:' + a.id, name: `array ${a.id}` }))
	]);
	/** Blocks and requests at once as are usual for what is measured. */
	function choose() {
		const random = what.startsWith('random');
		block = random ? '4 KiB' : '1 MiB';
		depth = random ? '1' : '8';
	}
	const cell = (s: string) => '"' + s.replaceAll('"', '""') + '"';
	const numbers = (s: string) => s.split(/[\s;]+/).filter(Boolean);

	async function series(): Promise<Series[]> {
		if (read.length > 0) return read;
		const rooms = numbers(room);
		const lines = numbers(runs).map((v, i) =>
			[
				what,
				side,
				of,
				asked?.rate ? block : '',
				asked?.rate ? depth : '',
				v,
				asked?.loud ? (rooms[i] ?? '') : ''
			]
				.map(cell)
				.join(',')
		);
		const text = ['what,when,of,block,depth,value,background', ...lines].join('\n');
		return (await api.measurements(new Blob([text]))).series;
	}
	async function keep(e: SubmitEvent) {
		e.preventDefault();
		wrong = [];
		try {
			const [, array] = subject.split('array:');
			const measured = (await series()).map((s) => ({
				...s,
				id: 1,
				when: side,
				...(rates && (array ? { array } : subject ? { item: subject } : {}))
			}));
			if (await session.change({ do: 'measure', measured })) {
				open = false;
				runs = room = '';
				read = [];
			}
		} catch (x) {
			const r = refusal(x);
			wrong = r.problem.errors?.map((p) => p.says) ?? [r.says];
		}
	}
</script>

<Dialog bind:open title={read.length > 0 ? 'What was read' : 'Enter a measurement'}>
	<form class="grid gap-3" onsubmit={keep} aria-label="Enter a measurement">
		{#if read.length > 0}
			<ul class="list-disc pl-5">
				{#each read as s, i (i)}
					<li>{s.what.replaceAll('-', ' ')}, {s.of ?? ''}: {s.runs.length} runs</li>
				{/each}
			</ul>
		{:else}
			<div>
				<Label for="{uid}w">What was measured</Label>
				<Select
					id="{uid}w"
					bind:value={what}
					placeholder=""
					onchange={choose}
					items={whats.map((w) => ({ value: w.what, name: `${w.says}, in ${w.unit}` }))}
				/>
			</div>
		{/if}
		<div>
			<Label for="{uid}s">When</Label>
			<Select
				id="{uid}s"
				bind:value={side}
				placeholder=""
				items={[
					{ value: 'before', name: 'before the work' },
					{ value: 'after', name: 'after the work' }
				]}
			/>
		</div>
		{#if read.length === 0}
			<div>
				<Label for="{uid}o">Of what, in the owner’s words</Label>
				<Input id="{uid}o" bind:value={of} maxlength={120} required={what === 'load'} />
			</div>
		{/if}
		{#if rates}
			<div>
				<Label for="{uid}d">Of which drive</Label>
				<Select id="{uid}d" bind:value={subject} placeholder="" items={subjects} />
			</div>
			{#if read.length === 0}
				<div class="grid grid-cols-2 gap-3">
					<div>
						<Label for="{uid}b">Blocks of</Label>
						<Input id="{uid}b" bind:value={block} />
					</div>
					<div>
						<Label for="{uid}q">Requests at once</Label>
						<Input id="{uid}q" inputmode="numeric" bind:value={depth} />
					</div>
				</div>
			{/if}
		{/if}
		{#if read.length === 0}
			<div>
				<Label for="{uid}r">The runs, in {asked?.unit ?? ''}, without the first</Label>
				<Textarea id="{uid}r" bind:value={runs} rows={2} required class="w-full" />
			</div>
			{#if asked?.loud}
				<div>
					<Label for="{uid}n">The room at the same spot, machine off, in dB(A)</Label>
					<Textarea id="{uid}n" bind:value={room} rows={2} class="w-full" />
				</div>
			{/if}
		{/if}
		{#if wrong.length > 0}
			<ul role="alert" class="border-l-4 border-over bg-overtint p-2">
				{#each wrong as w, i (i)}<li>{w}</li>{/each}
			</ul>
		{/if}
		<Button type="submit">Keep it</Button>
	</form>
</Dialog>
