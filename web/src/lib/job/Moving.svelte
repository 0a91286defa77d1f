<script lang="ts">
	// Data that comes from an old drive onto a new one: what must hold for it, how long it takes, and
	// the proof that it arrived.
	import { Button, Input, Label, Radio, Select } from 'flowbite-svelte';
	import { refusal, refused } from '$lib/api/refused';
	import type { Moved, Transfer, Transfers } from '$lib/api/types.gen';
	import * as api from '$lib/measure/api';
	import Dialog from '$lib/ui/Dialog.svelte';
	import Quiet from '$lib/ui/Quiet.svelte';
	import { useDesk } from './desk.svelte';

	let { open = $bindable() }: { open: boolean } = $props();
	const uid = $props.id();
	const desk = useDesk();
	const session = $derived(desk.session);
	let view = $state.raw<Transfers>();
	let drawn = $state.raw<Moved>();
	let wrong = $state('');
	let how = $state<Transfer['how']>('swap');
	let from = $state('');
	let to = $state('');
	let gb = $state('');
	let mean = $state('');
	let table = $state('');
	let start = $state('');
	let encrypted = $state('');
	let sector = $state('');
	let same = $state('');
	let files = $state<Record<number, string>>({});
	let sizes = $state<Record<number, string>>({});
	const ways = [
		{ value: 'swap', name: 'Copy files, then swap letters: programs find them where they were' },
		{ value: 'clone', name: 'Clone the whole drive: all stays as it is' },
		{ value: 'fresh', name: 'A fresh system, then copy the owner’s files' }
	] as const;
	const means = [
		{ value: '', name: 'a few large ones' },
		{ value: '5000000', name: 'photographs and sound, about 5 MB' },
		{ value: '500000', name: 'mixed, about 500 kB' },
		{ value: '30000', name: 'small ones, about 30 kB' }
	];
	const answers = [
		{ value: '', name: 'nobody looked' },
		{ value: 'yes', name: 'yes' },
		{ value: 'no', name: 'no' }
	];
	const number = (text: string) => {
		const n = Number(text.replace(',', '.'));
		return text.trim() === '' || !Number.isFinite(n) || n <= 0 ? undefined : n;
	};
	const asked = $derived.by((): Transfer | undefined => {
		if (!from || !to) return undefined;
		const bytes = number(gb);
		const first = number(sector);
		return {
			id: 1,
			how,
			from,
			to,
			...(bytes && { bytes: Math.round(bytes * 1e9) }),
			...(mean && how !== 'clone' && { meanFile: Number(mean) }),
			...(encrypted && { encrypted: encrypted === 'yes' }),
			...(how === 'clone' && {
				...(table && { table: table as 'gpt' | 'mbr' }),
				...(start && { start: start as 'uefi' | 'legacy' }),
				...(first && { firstSector: Math.round(first) }),
				...(same && { sameSectors: same === 'yes' })
			})
		};
	});

	$effect(() => {
		if (!open) return;
		void session.now.revision;
		api.transfers(session.job.id).then((v) => {
			view = v;
			from ||= v.from.length === 1 ? (v.from[0]?.item ?? '') : '';
			to ||= v.to.length === 1 ? (v.to[0]?.item ?? '') : '';
		}, refused);
	});
	// Whatever is asked may be answered late: the last question counts.
	let last = 0;
	$effect(() => {
		const mine = ++last;
		if (!asked) {
			drawn = undefined;
			return;
		}
		api.moves(session.job.id, asked).then(
			(m) => {
				if (mine === last) [drawn, wrong] = [m, ''];
			},
			(e: unknown) => {
				if (mine === last) wrong = refusal(e).says;
			}
		);
	});

	async function keep(e: SubmitEvent) {
		e.preventDefault();
		if (asked && (await session.change({ do: 'transfer', transfer: asked }))) to = gb = '';
	}
	async function prove(m: Moved) {
		const n = m.transfer.id;
		const all = number(files[n] ?? '');
		const size = number(sizes[n] ?? '');
		if (
			await session.change({
				do: 'prove',
				value: String(n),
				...(all && size && { proof: { files: Math.round(all), bytes: Math.round(size * 1e9) } })
			})
		)
			files[n] = sizes[n] = '';
	}
	const mark = (met: boolean | undefined) =>
		met === undefined ? ['?', 'not known'] : met ? ['✓', 'yes'] : ['!', 'no'];
</script>

{#snippet needs(m: Moved)}
	<ul class="grid gap-1">
		{#each m.needs as n (n.need)}
			{@const [sign, word] = mark(n.met)}
			<li
				class={['flex gap-2', n.met === false && 'text-over', n.met === undefined && 'text-soft']}
			>
				<span class="w-4 shrink-0 text-center font-semibold" aria-hidden="true">{sign}</span>
				<span><span class="sr-only">{word}:</span> {n.says}</span>
			</li>
		{/each}
	</ul>
{/snippet}

<Dialog bind:open title="Move data onto a new drive" size="lg">
	<div class="grid gap-4">
		{#each view?.moved ?? [] as m (m.transfer.id)}
			<section
				class="grid gap-2 border-l-4 border-water-4 pl-3"
				aria-label="From {m.from} onto {m.to}"
				data-testid="moved"
			>
				<h3 class="font-semibold">From {m.from} onto {m.to}</h3>
				{#if m.proof}
					<p>✓ {m.proof}</p>
				{:else}
					<p class="text-soft">{m.time}</p>
					{@render needs(m)}
					<form
						class="flex flex-wrap items-end gap-3"
						onsubmit={(e) => {
							e.preventDefault();
							void prove(m);
						}}
					>
						<div>
							<Label for="{uid}f{m.transfer.id}">Files that were compared</Label>
							<Input
								id="{uid}f{m.transfer.id}"
								inputmode="numeric"
								bind:value={files[m.transfer.id]}
							/>
						</div>
						<div>
							<Label for="{uid}b{m.transfer.id}">Together, in GB</Label>
							<Input
								id="{uid}b{m.transfer.id}"
								inputmode="decimal"
								bind:value={sizes[m.transfer.id]}
							/>
						</div>
						<Button type="submit" color="alternative">All of it arrived</Button>
						<Quiet
							aria-label="Give it up: from {m.from} onto {m.to}"
							onclick={() => session.change({ do: 'no transfer', value: String(m.transfer.id) })}
							>Give it up</Quiet
						>
					</form>
					<p class="text-soft">
						<code>deepbay verify OLD NEW</code> compares every file and prints both numbers.
					</p>
				{/if}
			</section>
		{/each}
		{#if view && view.to.length === 0}
			<p>
				Every drive of this job is said to hold something: data comes onto a blank drive only. Say
				on its card that it is blank, if somebody looked.
			</p>
		{:else if view && view.from.length === 0}
			<p>No drive of this job holds anything.</p>
		{:else if view}
			<form class="grid gap-3" onsubmit={keep} aria-label="Move data">
				<fieldset class="grid gap-1">
					<legend>How</legend>
					{#each ways as w (w.value)}
						<Radio bind:group={how} value={w.value} classes={{ label: 'min-h-11' }}>{w.name}</Radio>
					{/each}
				</fieldset>
				<div class="grid gap-3 sm:grid-cols-2">
					<div>
						<Label for="{uid}from">From</Label>
						<Select
							id="{uid}from"
							bind:value={from}
							placeholder=""
							items={[
								{ value: '', name: 'which drive' },
								...view.from.map((d) => ({ value: d.item, name: d.name }))
							]}
						/>
					</div>
					<div>
						<Label for="{uid}to">Onto</Label>
						<Select
							id="{uid}to"
							bind:value={to}
							placeholder=""
							items={[
								{ value: '', name: 'which drive' },
								...view.to.map((d) => ({ value: d.item, name: d.name }))
							]}
						/>
					</div>
					<div>
						<Label for="{uid}gb">On the old one lie, in GB</Label>
						<Input id="{uid}gb" inputmode="decimal" bind:value={gb} />
					</div>
					{#if how !== 'clone'}
						<div>
							<Label for="{uid}mean">In files</Label>
							<Select id="{uid}mean" bind:value={mean} placeholder="" items={means} />
						</div>
					{/if}
					<div>
						<Label for="{uid}enc">The old one is encrypted</Label>
						<Select id="{uid}enc" bind:value={encrypted} placeholder="" items={answers} />
					</div>
					{#if how === 'clone'}
						<div>
							<Label for="{uid}table">Its partition table</Label>
							<Select
								id="{uid}table"
								bind:value={table}
								placeholder=""
								items={[
									{ value: '', name: 'nobody looked' },
									{ value: 'gpt', name: 'GPT' },
									{ value: 'mbr', name: 'MBR, the older one' }
								]}
							/>
						</div>
						<div>
							<Label for="{uid}start">Its system starts by</Label>
							<Select
								id="{uid}start"
								bind:value={start}
								placeholder=""
								items={[
									{ value: '', name: 'nobody looked' },
									{ value: 'uefi', name: 'UEFI' },
									{ value: 'legacy', name: 'the older way' }
								]}
							/>
						</div>
						<div>
							<Label for="{uid}sector">First partition begins at sector</Label>
							<Input id="{uid}sector" inputmode="numeric" bind:value={sector} />
						</div>
						<div>
							<Label for="{uid}same">Logical sectors of one size</Label>
							<Select id="{uid}same" bind:value={same} placeholder="" items={answers} />
						</div>
					{/if}
				</div>
				{#if wrong}<p role="alert" class="text-over">{wrong}</p>{/if}
				{#if drawn}
					<div class="grid gap-2 border-l-4 border-coast pl-3" data-testid="drawn" role="status">
						<p>{drawn.time}</p>
						{@render needs(drawn)}
						{#each drawn.faults as f, i (i)}<p class="text-over">{f}</p>{/each}
					</div>
				{/if}
				<p class="text-soft">
					The steps join the work order: a second copy first, then the copy with the serial number
					typed, the proof, and only then letters and the old drive.
				</p>
				<div class="flex gap-3">
					<Button type="submit" disabled={!asked} aria-busy={session.busy}
						>Put it into the work order</Button
					>
					<Button color="alternative" onclick={() => (open = false)}>Close</Button>
				</div>
			</form>
		{:else}
			<p role="status" class="text-soft">Reading which drives hold what…</p>
		{/if}
	</div>
</Dialog>
