<script lang="ts">
	import { Input, Label, Select, Textarea } from 'flowbite-svelte';
	import { getAbortSignal } from 'svelte';
	import { api, ApiError } from '$lib/api/client';
	import type { Fit } from '$lib/api/types.gen';
	import Ask from '$lib/rule/Ask.svelte';
	import Notches from '$lib/rule/Notches.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import type { PageProps } from './$types';

	let { data }: PageProps = $props();

	const gens = [1, 2, 3, 4, 5, 6].map((g) => ({ value: String(g), name: `Gen ${g}` }));
	const widths = [1, 2, 4, 8, 16].map((w) => ({ value: String(w), name: `x${w}` }));

	let end = $state({ gen: '4', lanes: '4', gen2: '3', lanes2: '4' });
	let up = $state({ upGen: '3', upLanes: '4', gen: '3', lanes: '4', count: '4' });
	let capacity = $state('2 TB');
	let code = $state('PC4-21300');
	let words = $state('2x16 DDR5-5600 SODIMM');
	let key = $state('M');
	let protocols = $state('pcie');
	let sheet = $derived(
		data.sheets.find((s) => s.id === 'harrier-t4')?.id ?? data.sheets[0]?.id ?? ''
	);
	let modules = $state('2x16 DDR4-3200 2R\n2x4 DDR4-2400 1R');

	const ask = (question: string, values: Record<string, string>) =>
		Object.values(values).every((v) => !v.trim())
			? ''
			: question + '?' + new URLSearchParams(values).toString();

	let fits = $state.raw<readonly Fit[]>([]);
	let fault = $state('');
	$effect(() => {
		const [k, p] = [key, protocols];
		const signal = getAbortSignal();
		void api.keys(k, p, signal).then(
			(f) => {
				fits = f;
				fault = '';
			},
			(e: unknown) => {
				if (signal.aborted) return;
				if (!(e instanceof ApiError)) throw e;
				fault = e.message;
			}
		);
	});
	const grade = {
		live: 'good',
		stopped: 'stops',
		unknown: 'unknown',
		off: 'off',
		free: 'empty'
	} as const;
</script>

<svelte:head><title>Slide rule · Deep Bay</title></svelte:head>

{#snippet pick(
	id: string,
	label: string,
	items: { value: string; name: string }[],
	value: string,
	set: (v: string) => void
)}
	<div class="w-28">
		<Label for={id}>{label}</Label>
		<Select
			{id}
			{value}
			placeholder="not known"
			{items}
			onchange={(e) => set(e.currentTarget.value)}
		/>
	</div>
{/snippet}

<h1 class="pt-5 pb-3">Slide rule</h1>
<div class="grid gap-x-10 gap-y-6 lg:grid-cols-2">
	<div class="grid content-start gap-6">
		<Ask
			long
			title="What do these words or this label say?"
			question={ask('part', { text: words })}
			onchoose={(w) => (words = `${words} ${w}`)}
		>
			<div class="w-full">
				<Label for="words">Shorthand, or a module's label</Label>
				<Input id="words" bind:value={words} autocomplete="off" spellcheck="false" />
			</div>
		</Ask>
		<Ask title="What does this link run at?" question={ask('link', end)}>
			{@render pick('gen', 'One end', gens, end.gen, (v) => (end.gen = v))}
			{@render pick('lanes', 'lanes', widths, end.lanes, (v) => (end.lanes = v))}
			{@render pick('gen2', 'Other end', gens, end.gen2, (v) => (end.gen2 = v))}
			{@render pick('lanes2', 'lanes', widths, end.lanes2, (v) => (end.lanes2 = v))}
		</Ask>
		<Ask title="What do drives behind one uplink get?" question={ask('uplink', up)}>
			{@render pick('upGen', 'Uplink', gens, up.upGen, (v) => (up.upGen = v))}
			{@render pick('upLanes', 'lanes', widths, up.upLanes, (v) => (up.upLanes = v))}
			{@render pick('dGen', 'Drives', gens, up.gen, (v) => (up.gen = v))}
			{@render pick('dLanes', 'lanes', widths, up.lanes, (v) => (up.lanes = v))}
			<div class="w-24">
				<Label for="count">how many</Label>
				<Input id="count" type="number" min="1" max="64" bind:value={up.count} />
			</div>
		</Ask>
		<Ask
			title="What speed is this module code?"
			question={ask('code', { text: code })}
			onchoose={(w) => (code = w)}
		>
			<div class="w-44">
				<Label for="code">Code or speed</Label>
				<Input id="code" bind:value={code} autocomplete="off" />
			</div>
		</Ask>
		<Ask
			title="How are these modules spread?"
			question={modules.trim() && sheet ? ask('population', { sheet, text: modules }) : ''}
		>
			<div class="w-64">
				<Label for="sheet">Machine</Label>
				<Select
					id="sheet"
					bind:value={sheet}
					placeholder=""
					items={data.sheets.map((s) => ({ value: s.id, name: s.name }))}
				/>
			</div>
			<div class="w-full">
				<Label for="modules">Modules, one kind a line</Label>
				<Textarea id="modules" bind:value={modules} rows={2} class="w-full" spellcheck="false" />
			</div>
		</Ask>
	</div>
	<div class="grid content-start gap-6">
		<section aria-labelledby="keys-h" class="border-t border-line pt-3" data-ask="keys">
			<h2 id="keys-h">Which M.2 card goes into this socket?</h2>
			<div class="my-2 flex flex-wrap items-end gap-2">
				{@render pick(
					'key',
					'Key',
					['A', 'B', 'E', 'M'].map((k) => ({ value: k, name: k })),
					key,
					(v) => (key = v)
				)}
				<div class="w-44">
					<Label for="protocols">It speaks</Label>
					<Select
						id="protocols"
						bind:value={protocols}
						placeholder=""
						items={[
							{ value: 'pcie', name: 'PCIe only' },
							{ value: 'sata', name: 'SATA only' },
							{ value: 'pcie,sata', name: 'PCIe or SATA' },
							{ value: '', name: 'not known' }
						]}
					/>
				</div>
				<Notches keys={[key]} socket label="Socket keyed {key}" />
			</div>
			{#if fault}<p class="text-over">{fault}</p>{/if}
			<ul aria-live="polite">
				{#each fits as f (f.card)}
					<li class="flex flex-wrap items-center gap-3 border-b border-line py-1.5">
						<Notches keys={f.keys} label="Card with notches {f.keys.join(' and ')}" />
						<Mark grade={grade[f.state]} label={f.state} />
						<span class="min-w-48 flex-1"><strong>{f.card}</strong><br />{f.says}</span>
					</li>
				{/each}
			</ul>
		</section>
		<Ask
			title="What is this capacity in other units?"
			question={ask('capacity', { text: capacity })}
		>
			<div class="w-44">
				<Label for="capacity">Capacity</Label>
				<Input id="capacity" bind:value={capacity} autocomplete="off" />
			</div>
		</Ask>
	</div>
</div>
