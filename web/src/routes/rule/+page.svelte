<script lang="ts">
	import { Input, Label, Select, Textarea } from 'flowbite-svelte';
	import Ask from '$lib/rule/Ask.svelte';
	import Keys from '$lib/rule/Keys.svelte';
	import Pick from '$lib/rule/Pick.svelte';
	import type { PageProps } from './$types';

	let { data }: PageProps = $props();

	const gens = [1, 2, 3, 4, 5, 6].map((g) => ({ value: String(g), name: `Gen ${g}` }));
	const widths = [1, 2, 4, 8, 16].map((w) => ({ value: String(w), name: `x${w}` }));

	let end = $state({ gen: '4', lanes: '4', gen2: '3', lanes2: '4' });
	let up = $state({ upGen: '3', upLanes: '4', gen: '3', lanes: '4', count: '4' });
	let capacity = $state('2 TB');
	let code = $state('PC4-21300');
	let sum = $state('2 TB + 500 GB - 3 x 120 GB');
	let array = $state({ text: '3 x 4 TB', level: '5' });
	let copy = $state({
		text: '2 TB',
		mean: '4 MB',
		reads: '200 MB/s',
		writes: '540 MB/s',
		on: 'platter'
	});
	let sounds = $state({ text: '34.6 34.9 35.1', room: '24.1' });
	let prices = $state('2x16GB 79.90\n32GB 84.00');
	const levels = [
		{ value: 'apart', name: 'separate volumes' },
		{ value: 'joined', name: 'joined' },
		{ value: '0', name: '0: striped' },
		{ value: '1', name: '1: mirrored' },
		{ value: '10', name: '10: striped mirrors' },
		{ value: '5', name: '5: one parity' },
		{ value: '6', name: '6: two parities' }
	];
	let words = $state('2x16 DDR5-5600 SODIMM');
	let sheet = $derived(
		data.sheets.find((s) => s.id === 'harrier-t4')?.id ?? data.sheets[0]?.id ?? ''
	);
	let modules = $state('2x16 DDR4-3200 2R\n2x4 DDR4-2400 1R');

	const ask = (question: string, values: Record<string, string>) =>
		Object.values(values).every((v) => !v.trim())
			? ''
			: question + '?' + new URLSearchParams(values).toString();
</script>

<svelte:head><title>Slide rule · Deep Bay</title></svelte:head>

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
			<Pick id="gen" label="One end" items={gens} bind:value={end.gen} />
			<Pick id="lanes" label="lanes" items={widths} bind:value={end.lanes} />
			<Pick id="gen2" label="Other end" items={gens} bind:value={end.gen2} />
			<Pick id="lanes2" label="lanes" items={widths} bind:value={end.lanes2} />
		</Ask>
		<Ask title="What do drives behind one uplink get?" question={ask('uplink', up)}>
			<Pick id="upGen" label="Uplink" items={gens} bind:value={up.upGen} />
			<Pick id="upLanes" label="lanes" items={widths} bind:value={up.upLanes} />
			<Pick id="dGen" label="Drives" items={gens} bind:value={up.gen} />
			<Pick id="dLanes" label="lanes" items={widths} bind:value={up.lanes} />
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
		<Keys />
		<Ask
			title="What is this capacity in other units?"
			question={ask('capacity', { text: capacity })}
		>
			<div class="w-44">
				<Label for="capacity">Capacity</Label>
				<Input id="capacity" bind:value={capacity} autocomplete="off" />
			</div>
		</Ask>
		<Ask title="What do these capacities come to?" question={ask('sum', { text: sum })}>
			<div class="w-full">
				<Label for="sum">Capacities with + and -</Label>
				<Input id="sum" bind:value={sum} autocomplete="off" />
			</div>
		</Ask>
		<Ask title="What does an array of drives hold?" question={ask('array', array)}>
			<div class="w-44">
				<Label for="members">Drives</Label>
				<Input id="members" bind:value={array.text} autocomplete="off" />
			</div>
			<div class="w-44">
				<Label for="level">Level</Label>
				<Select id="level" bind:value={array.level} placeholder="" items={levels} />
			</div>
		</Ask>
		<Ask title="How long does a copy take?" question={ask('copy', copy)}>
			<div class="w-28">
				<Label for="load">So much</Label>
				<Input id="load" bind:value={copy.text} autocomplete="off" />
			</div>
			<div class="w-28">
				<Label for="mean">in files of</Label>
				<Input id="mean" bind:value={copy.mean} autocomplete="off" />
			</div>
			<div class="w-32">
				<Label for="reads">read at</Label>
				<Input id="reads" bind:value={copy.reads} autocomplete="off" />
			</div>
			<div class="w-32">
				<Label for="writes">written at</Label>
				<Input id="writes" bind:value={copy.writes} autocomplete="off" />
			</div>
			<div class="w-52">
				<Label for="on">The slower of both is</Label>
				<Select
					id="on"
					bind:value={copy.on}
					placeholder=""
					items={[
						{ value: 'platter', name: 'of platters' },
						{ value: 'flash', name: 'of flash' }
					]}
				/>
			</div>
		</Ask>
		<Ask title="How loud is it without the room?" question={ask('sounds', sounds)}>
			<div class="w-56">
				<Label for="sounds">Levels, dB(A)</Label>
				<Input id="sounds" bind:value={sounds.text} autocomplete="off" />
			</div>
			<div class="w-44">
				<Label for="room">The room, machine off</Label>
				<Input id="room" bind:value={sounds.room} autocomplete="off" />
			</div>
		</Ask>
		<Ask title="Which kit is cheapest by the GB?" question={ask('prices', { text: prices })}>
			<div class="w-full">
				<Label for="prices">What it is, and what all of it costs, a kit a line</Label>
				<Textarea id="prices" bind:value={prices} rows={2} class="w-full" spellcheck="false" />
			</div>
		</Ask>
	</div>
</div>
