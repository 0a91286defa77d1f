<script lang="ts">
	// What is written on the blank drives: each to scale, its volumes in a row a volume.
	import { Button, Input, Label, Select } from 'flowbite-svelte';
	import { SvelteMap } from 'svelte/reactivity';
	import { refusal, refused } from '$lib/api/refused';
	import type { Divided, Layout, Volume, Volumes } from '$lib/api/types.gen';
	import * as api from '$lib/measure/api';
	import Dialog from '$lib/ui/Dialog.svelte';
	import Quiet from '$lib/ui/Quiet.svelte';
	import { useDesk } from './desk.svelte';

	let { open = $bindable() }: { open: boolean } = $props();
	const uid = $props.id();
	const desk = useDesk();
	const session = $derived(desk.session);
	let system = $state<Volume['fileSystem']>('ntfs');
	let view = $state.raw<Volumes>();
	/** What is at work, by drive: typed here, drawn by the server. */
	const drawn = new SvelteMap<string, Divided>();
	const systems = [
		{ value: 'ntfs', name: 'NTFS' },
		{ value: 'exfat', name: 'exFAT' },
		{ value: 'fat32', name: 'FAT32' },
		{ value: 'ext4', name: 'ext4' },
		{ value: 'xfs', name: 'XFS' }
	];
	const tables = [
		{ value: 'gpt', name: 'GPT' },
		{ value: 'mbr', name: 'MBR, the older one: for firmware that starts from nothing else' }
	];
	const key = (d: { item?: string; array?: string }) => d.item ?? 'array:' + (d.array ?? '');

	$effect(() => {
		if (!open) return;
		void session.now.revision;
		api.volumes(session.job.id, system).then((v) => {
			view = v;
			drawn.clear();
			for (const d of v.drives) drawn.set(key(d), d);
		}, refused);
	});
	async function change(d: Divided, layout: Layout) {
		drawn.set(key(d), { ...d, layout }); // what is typed stands there at once
		try {
			const now = await api.divide(session.job.id, layout);
			const last = drawn.get(key(d));
			if (last && JSON.stringify(last.layout) === JSON.stringify(layout))
				drawn.set(key(d), { ...now, planned: d.planned });
		} catch (e) {
			const last = drawn.get(key(d));
			if (last) drawn.set(key(d), { ...last, faults: [refusal(e).says] });
		}
	}
	const lay = (d: Divided, volumes: Volume[]) =>
		change(d, { ...d.layout, volumes: volumes as Layout['volumes'] });
	const at = (d: Divided, n: number, v: Partial<Volume>) =>
		lay(
			d,
			d.layout.volumes.map((o, i) => (i === n ? { ...o, ...v } : o))
		);
	const blank = (id: string) => {
		const it = session.item(id);
		return session.change({
			do: 'correct',
			item: id,
			serial: it?.serial,
			new: it?.new,
			holds: 'blank',
			alone: true
		});
	};
	/** The drive whose erasing is asked about. */
	let emptying = $state('');
	async function empty(item: string) {
		const layout = { item, table: 'gpt', volumes: [{ fileSystem: system }] } satisfies Layout;
		if (await session.change({ do: 'layout', layout, sure: true })) emptying = '';
	}
	/** A size as it is typed, in GB; empty is what is left. */
	const size = (text: string) => {
		const n = Number(text.replace(',', '.'));
		return text.trim() === '' || !Number.isFinite(n) ? undefined : Math.round(n * 1e9);
	};
	const fill = {
		table: 'fill-coast',
		start: 'fill-sound',
		reserved: 'fill-line',
		system: 'fill-water-2 stroke-ink',
		recovery: 'fill-land stroke-coast',
		volume: 'fill-water-3 stroke-ink',
		free: 'fill-raised stroke-line',
		lost: 'fill-overtint stroke-over'
	} as const;
	/** Where each stretch begins, and how wide it is: nothing is too narrow to be seen. */
	const places = (d: Pick<Divided, 'strip'>) => {
		const wide = d.strip.map((s) => Math.max(6, s.share * 1000));
		const all = wide.reduce((a, b) => a + b, 0);
		let x = 0;
		return d.strip.map((s, i) => {
			const w = ((wide[i] ?? 0) * 1000) / all;
			x += w;
			return { ...s, x: x - w, w };
		});
	};
</script>

{#snippet whole(says: string, fill: string)}
	<p class="flex items-center gap-2 text-soft">
		<span aria-hidden="true" class={['h-3 grow border border-line', fill]}></span>
		{says}
	</p>
{/snippet}

<Dialog bind:open title="Volumes of blank drives" size="lg">
	<div class="grid gap-4">
		<div class="w-56">
			<Label for="{uid}s">Suggested as</Label>
			<Select id="{uid}s" bind:value={system} placeholder="" items={systems} />
		</div>
		{#if view?.system}
			{@const s = view.system}
			<section class="grid gap-2 border-t border-line pt-3" data-testid="system">
				<h3 class="font-semibold">
					{s.name} <span class="font-normal text-soft">gets the system; {s.size}</span>
				</h3>
				{@render whole(s.before, 'bg-raised')}
				{#if s.strip.length > 0}
					<svg
						viewBox="0 0 1000 44"
						class="h-11 w-full"
						preserveAspectRatio="none"
						role="img"
						aria-label={s.strip.map((x) => x.says).join('; ')}
					>
						{#each places(s) as x, i (i)}
							<rect x={x.x} y="2" width={x.w} height="40" class={fill[x.kind]} />
						{/each}
					</svg>
					<ul class="text-soft">
						{#each s.strip as x, i (i)}
							{#if x.kind !== 'table'}<li>{x.says}</li>{/if}
						{/each}
					</ul>
				{/if}
				{#each s.says as line, i (i)}<p>{line}</p>{/each}
			</section>
		{/if}
		{#if view && view.stays.length > 0}
			<section class="grid gap-2 border-t border-line pt-3" data-testid="stays">
				<h3 class="font-semibold">Drives that stay as they are</h3>
				{#each view.stays as d (d.item)}
					{@render whole('before and after: as it is', 'bg-land')}
					<div class="grid items-end gap-3 sm:grid-cols-[1fr_16rem]">
						<Label for="{uid}at{d.item}" class="pb-2">Letters or places of {d.name}</Label>
						<Input
							id="{uid}at{d.item}"
							value={d.at}
							placeholder="D: or /srv/tides"
							onchange={(e) =>
								session.change({ do: 'letters', item: d.item, text: e.currentTarget.value })}
						/>
					</div>
					{#if emptying === d.item}
						<div role="alert" class="border-l-4 border-over bg-overtint px-3 py-2">
							<p>
								Everything on {d.name} will be erased. The order waits with it until a copy was read back.
							</p>
							<div class="mt-2 flex flex-wrap gap-3">
								<Button onclick={() => empty(d.item)} aria-busy={session.busy}
									>Erase it: this was agreed</Button
								>
								<Button color="alternative" onclick={() => (emptying = '')}>Keep it</Button>
							</div>
						</div>
					{:else}
						<Quiet
							class="justify-self-start"
							aria-label="Empty it and use it again…: {d.name}"
							onclick={() => (emptying = d.item)}>Empty it and use it again…</Quiet
						>
					{/if}
				{/each}
				<p class="text-soft">Nothing new gets one of these.</p>
			</section>
		{/if}
		{#if view === undefined}
			<p role="status" class="text-soft">Reading which drives are blank…</p>
		{:else if view.drives.length === 0}
			<p>No drive of the plan is known to be blank.</p>
		{/if}
		{#each view?.open ?? [] as o (o.item)}
			<p class="flex flex-wrap items-center gap-x-3">
				<span>{o.name}: nobody said what it holds.</span>
				<Quiet aria-label="It is blank, somebody looked: {o.name}" onclick={() => blank(o.item)}
					>It is blank, somebody looked</Quiet
				>
			</p>
		{/each}
		{#each [...drawn.values()] as d (key(d))}
			<section
				class="grid gap-2 border-t border-line pt-3"
				aria-label={d.name}
				data-testid="divided"
			>
				<h3 class="font-semibold">{d.name} <span class="font-normal text-soft">{d.size}</span></h3>
				<svg
					viewBox="0 0 1000 44"
					class="h-11 w-full"
					preserveAspectRatio="none"
					role="img"
					aria-label={d.strip.map((s) => s.says).join('; ')}
				>
					{#each places(d) as s, i (i)}
						<rect x={s.x} y="2" width={s.w} height="40" class={fill[s.kind]} />
					{/each}
				</svg>
				{@render whole(d.before, d.empties ? 'bg-overtint' : 'bg-raised')}
				<ul class="text-soft">
					{#each d.strip as s, i (i)}
						{#if s.kind !== 'table'}<li>{s.says}</li>{/if}
					{/each}
				</ul>
				<div class="grid grid-cols-2 gap-2 sm:grid-cols-[8rem_8rem_1fr_9rem_auto]">
					{#each d.layout.volumes as v, n (n)}
						{@const of = `${uid}${key(d)}-${String(n)}`}
						<div>
							<Label for="{of}b">Volume {n + 1}, GB</Label>
							<Input
								id="{of}b"
								inputmode="decimal"
								placeholder="what is left"
								value={v.bytes === undefined ? '' : String(v.bytes / 1e9)}
								onchange={(e) => at(d, n, { bytes: size(e.currentTarget.value) })}
							/>
						</div>
						<div>
							<Label for="{of}f">file system</Label>
							<Select
								id="{of}f"
								placeholder=""
								value={v.fileSystem}
								items={systems}
								onchange={(e) =>
									at(d, n, { fileSystem: e.currentTarget.value as Volume['fileSystem'] })}
							/>
						</div>
						<div>
							<Label for="{of}l">label</Label>
							<Input
								id="{of}l"
								value={v.label ?? ''}
								maxlength={32}
								onchange={(e) => at(d, n, { label: e.currentTarget.value || undefined })}
							/>
						</div>
						<div>
							<Label for="{of}a">letter or place</Label>
							<Input
								id="{of}a"
								value={v.at ?? ''}
								maxlength={60}
								onchange={(e) => at(d, n, { at: e.currentTarget.value || undefined })}
							/>
						</div>
						<Quiet
							class="self-end"
							disabled={d.layout.volumes.length < 2}
							aria-label="Leave volume {n + 1} away: {d.name}"
							onclick={() =>
								lay(
									d,
									d.layout.volumes.filter((_, i) => i !== n)
								)}>Away</Quiet
						>
					{/each}
				</div>
				{#each d.notes as n, i (i)}<p>{n}</p>{/each}
				{#if d.faults.length > 0}
					<ul role="alert" class="border-l-4 border-over bg-overtint p-2">
						{#each d.faults as f, i (i)}<li>{f}</li>{/each}
					</ul>
				{/if}
				<div class="flex flex-wrap items-end gap-3">
					<Quiet
						onclick={() =>
							lay(d, [
								...d.layout.volumes.slice(0, -1),
								{ ...(d.layout.volumes.at(-1) as Volume), bytes: 100e9 },
								{ fileSystem: system }
							])}>One more volume</Quiet
					>
					<div class="w-64">
						<Label for="{uid}{key(d)}t">table</Label>
						<Select
							id="{uid}{key(d)}t"
							placeholder=""
							value={d.layout.table}
							items={tables}
							onchange={(e) =>
								change(d, { ...d.layout, table: e.currentTarget.value as Layout['table'] })}
						/>
					</div>
					<Button
						disabled={d.faults.length > 0}
						aria-busy={session.busy}
						onclick={() =>
							session.change({ do: 'layout', layout: d.layout, ...(d.empties && { sure: true }) })}
						>{d.planned ? 'Plan it so now' : 'Plan it so'}</Button
					>
					{#if d.planned}
						<Quiet onclick={() => session.change({ do: 'no layout', value: key(d) })}
							>No volumes</Quiet
						>
					{/if}
				</div>
			</section>
		{/each}
		{#if view}<p class="text-soft">{view.says}</p>{/if}
		<div><Button color="alternative" onclick={() => (open = false)}>Close</Button></div>
	</div>
</Dialog>
