<script lang="ts">
	// What lies over what: covers, cages and cards with their fasteners and leads. The drawings
	// answer to what is typed.
	import { Button } from 'flowbite-svelte';
	import type { Layer, Step } from '$lib/api/types.gen';
	import { BITS, KINDS, THREADS } from '$lib/step/choices';
	import Exploded from '$lib/step/Exploded.svelte';
	import Picture from '$lib/step/Picture.svelte';
	import { ANSWER, type Choice } from './choices';
	import { useDraft } from './draft.svelte';
	import Field from './Field.svelte';
	import Points from './Points.svelte';

	const get = useDraft();
	const draft = $derived(get());
	const layers = $derived(draft.sheet.layers ?? []);
	let chosen = $state('');
	const i = $derived(
		Math.max(
			0,
			layers.findIndex((l) => l.id === chosen)
		)
	);
	const layer = $derived(layers[i]);
	const at = $derived(`/layers/${i}`);

	const list = (values: readonly (string | undefined)[], none = '?'): readonly Choice[] => [
		{ value: undefined, name: none },
		...values.map((v) => ({ value: v, name: v! }))
	];
	const YES: readonly Choice[] = [
		{ value: undefined, name: 'no' },
		{ value: true, name: 'yes' }
	];
	const SIDES = ['top', 'bottom', 'front', 'rear', 'left', 'right'];
	const PLUGS = [
		'friction',
		'latch',
		'flip lock',
		'slide lock',
		'coax',
		'SATA data',
		'SATA power',
		'card power'
	];
	const UNDONE: readonly Choice[] = [
		{ value: undefined, name: 'before it moves' },
		{ value: 'lifting', name: 'only once it is lifted' }
	];
	const AGAIN: readonly Choice[] = [
		{ value: undefined, name: 'either' },
		{ value: 'before', name: 'before it is back' },
		{ value: 'after', name: 'only once it is back' }
	];
	/** The layer as a step takes it off, for the drawing. */
	const step = $derived(
		layer &&
			({
				id: 'open/' + layer.id,
				phase: 'open',
				do: `The ${layer.name}`,
				how: [],
				cautions: [],
				tools: [],
				minutes: 1,
				layer: layer.id
			} satisfies Step)
	);
	/** Those above it are off in the drawing. */
	const off = $derived.by(() => {
		const out: string[] = [];
		const add = (id: string) => {
			if (out.includes(id)) return;
			out.push(id);
			for (const a of layers.find((l) => l.id === id)?.after ?? []) add(a);
		};
		for (const a of layer?.after ?? []) add(a);
		return out;
	});

	function add() {
		const id = draft.free('layers', 'layer-');
		draft.change((s) => {
			const made: Layer = { id, name: 'a layer', kind: layers.length ? 'bracket' : 'cover' };
			if (layers.length) made.after = [layers[0]!.id];
			else made.all = true;
			s.layers = [...(s.layers ?? []), made];
		});
		chosen = id;
	}
	type Many = 'fasteners' | 'catches' | 'moves' | 'leads';
	const BLANK = {
		fasteners: { count: 1 },
		catches: { kind: 'clip' },
		moves: { how: 'lift', toward: 'top' },
		leads: { for: 'a lead' }
	} as const;
	const more = (of: Many) =>
		draft.change((s) => {
			const l = s.layers?.[i];
			if (l) l[of] = [...(l[of] ?? []), { ...BLANK[of] }] as never;
		});
	const less = (of: Many, n: number) =>
		draft.change((s) => {
			const l = s.layers?.[i];
			const left = (l?.[of] ?? []).filter((_, k) => k !== n);
			if (!l) return;
			if (left.length) l[of] = left as never;
			else delete l[of];
		});
	const outline = () =>
		draft.change((s) => {
			const l = s.layers?.[i];
			if (l) l.outline = { xMM: 0, yMM: 0, widthMM: s.board.widthMM, heightMM: s.board.heightMM };
		});
</script>

{#snippet group(of: Many, title: string, one: string)}
	<div class="flex items-center gap-3 pt-2">
		<h3 class="font-semibold">{title}</h3>
		<Button color="alternative" size="sm" class="min-h-11" onclick={() => more(of)}
			>Add {one}</Button
		>
	</div>
{/snippet}
{#snippet away(of: Many, n: number, what: string)}
	<Button color="alternative" class="self-end" onclick={() => less(of, n)}>Take {what} away</Button>
{/snippet}

<p class="text-soft">
	What must come off to reach what. A sheet without layers says only how its cover comes off.
</p>
{#if layers.length > 0}
	<div class="grid items-start gap-3 py-2 xl:grid-cols-2">
		<Exploded sheet={draft.sheet} {layers} lit={layer?.id} {off} onpick={(id) => (chosen = id)} />
		{#if step}
			<div class="h-72"><Picture sheet={draft.sheet} {layers} {step} {off} /></div>
		{/if}
	</div>
{/if}
<div class="flex flex-wrap gap-2 py-2">
	{#each layers as l (l.id)}
		<Button
			color={l.id === layer?.id ? 'primary' : 'alternative'}
			aria-pressed={l.id === layer?.id}
			onclick={() => (chosen = l.id)}>{l.name}</Button
		>
	{/each}
	<Button color="alternative" onclick={add}>Add a layer</Button>
</div>

{#if layer}
	{#key layer.id}
		<div class="grid grid-cols-2 gap-2 border-t border-line pt-2 sm:grid-cols-3">
			<Field at="{at}/name" label="name" max={80} />
			<Field
				at="{at}/id"
				label="short name"
				max={40}
				onset={(v) => {
					if (!v) return;
					draft.rename('layers', i, String(v));
					chosen = String(v);
				}}
			/>
			<Field at="{at}/kind" label="kind" choices={list(KINDS).slice(1)} />
			<Field at="{at}/where" label="where" max={120} />
			<Field at="{at}/side" label="comes off from" choices={list(SIDES)} />
			<Field at="{at}/after" label="after these are off" names />
			<Field at="{at}/all" label="hides everything inside" choices={YES} />
			<Field at="{at}/hides" label="hides" names />
			<Field at="{at}/crowds" label="only crowds" names />
			<Field at="{at}/holds" label="comes out with bays" names />
			<Field at="{at}/leadsAlong" label="their leads come along" choices={YES} />
			<Field at="{at}/in" label="is what lies in" max={40} />
			<Field at="{at}/minutes" label="minutes" number />
			<Field at="{at}/risk" label="how easily it breaks" choices={list(['low', 'some', 'high'])} />
			<Field at="{at}/stays" label="swings aside, and stays" choices={YES} />
			<Field at="{at}/runsWith" label="must be on to run" choices={YES} />
			<Field at="{at}/fixed" label="does not come off" choices={YES} />
			<Field at="{at}/typical" label="only as usual" choices={YES} />
			<div class="col-span-full"><Field at="{at}/caution" label="what can break or hurt" /></div>
		</div>
		{#if layer.outline}
			<div class="grid grid-cols-4 gap-2 pt-2">
				<Field at="{at}/outline/xMM" label="from the left, mm" number />
				<Field at="{at}/outline/yMM" label="from the top, mm" number />
				<Field at="{at}/outline/widthMM" label="wide, mm" number />
				<Field at="{at}/outline/heightMM" label="high, mm" number />
			</div>
		{:else}
			<Button color="alternative" class="mt-2" onclick={outline}>Draw its outline</Button>
		{/if}

		{@render group('fasteners', 'Fasteners', 'screws')}
		{#each layer.fasteners ?? [] as f, n (n)}
			<fieldset class="grid grid-cols-2 gap-2 border-l-2 border-line pl-2 sm:grid-cols-4">
				<legend class="sr-only">Screws {n + 1}</legend>
				<Field at="{at}/fasteners/{n}/count" label="how many" number />
				<Field at="{at}/fasteners/{n}/bit" label="driver" choices={list(BITS)} />
				<Field at="{at}/fasteners/{n}/thread" label="thread" choices={list(THREADS)} />
				<Field at="{at}/fasteners/{n}/lengthMM" label="length, mm" number />
				<Field at="{at}/fasteners/{n}/captive" label="captive" choices={ANSWER} />
				<Field at="{at}/fasteners/{n}/torque" label="how hard" max={60} />
				<Field at="{at}/fasteners/{n}/where" label="where" max={120} />
				<Points at="{at}/fasteners/{n}/at" label="at, mm: 10,20 90,20" />
				{@render away('fasteners', n, `screws ${n + 1}${f.where ? ', ' + f.where : ''}`)}
			</fieldset>
		{/each}

		{@render group('catches', 'Tabs, clips and latches', 'one')}
		{#each layer.catches ?? [] as c, n (n)}
			<fieldset class="grid grid-cols-2 gap-2 border-l-2 border-line pl-2 sm:grid-cols-4">
				<legend class="sr-only">Catch {n + 1}</legend>
				<Field
					at="{at}/catches/{n}/kind"
					label="kind"
					choices={list(['tab', 'clip', 'latch', 'lock', 'adhesive']).slice(1)}
				/>
				<Field at="{at}/catches/{n}/count" label="how many" number />
				<Field at="{at}/catches/{n}/toward" label="let go towards" choices={list(SIDES)} />
				<Field at="{at}/catches/{n}/where" label="where" max={120} />
				<Points at="{at}/catches/{n}/at" label="at, mm: 10,20 90,20" />
				{@render away('catches', n, `${c.kind} ${n + 1}`)}
			</fieldset>
		{/each}

		{@render group('moves', 'How it comes away', 'a move')}
		{#each layer.moves ?? [] as m, n (n)}
			<fieldset class="grid grid-cols-2 gap-2 border-l-2 border-line pl-2 sm:grid-cols-4">
				<legend class="sr-only">Move {n + 1}</legend>
				<Field
					at="{at}/moves/{n}/how"
					label="how"
					choices={list(['lift', 'slide', 'swing', 'tilt', 'pull']).slice(1)}
				/>
				<Field at="{at}/moves/{n}/toward" label="towards" choices={list(SIDES)} />
				<Field at="{at}/moves/{n}/byMM" label="by, mm" number />
				{@render away('moves', n, `${m.how} ${n + 1}`)}
			</fieldset>
		{/each}

		{@render group('leads', 'Leads', 'a lead')}
		{#each layer.leads ?? [] as d, n (n)}
			<fieldset class="grid grid-cols-2 gap-2 border-l-2 border-line pl-2 sm:grid-cols-4">
				<legend class="sr-only">Lead {n + 1}</legend>
				<Field at="{at}/leads/{n}/for" label="what for" max={80} />
				<Field at="{at}/leads/{n}/plug" label="plug" choices={list(PLUGS)} />
				<Field at="{at}/leads/{n}/where" label="where its plug is" max={120} />
				<Field at="{at}/leads/{n}/under" label="hidden by" names />
				<Field at="{at}/leads/{n}/undone" label="undone" choices={UNDONE} />
				<Field at="{at}/leads/{n}/again" label="plugged again" choices={AGAIN} />
				<Field at="{at}/leads/{n}/lengthMM" label="reaches, mm" number />
				<Points at="{at}/leads/{n}/at" label="at, mm: 10,20" single />
				{@render away('leads', n, d.for)}
			</fieldset>
		{/each}
		<Button
			color="alternative"
			class="mt-4"
			onclick={() => {
				draft.remove('layers', i);
				chosen = '';
			}}>Take the {layer.name} away</Button
		>
	{/key}
{/if}
