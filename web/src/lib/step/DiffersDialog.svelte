<script lang="ts">
	// The machine is other than its sheet says: noted at the step, and written into the sheet by one
	// press where it can be.
	import { Button, Checkbox, Input, Label, Radio, Select } from 'flowbite-svelte';
	import { untrack } from 'svelte';
	import type { Difference, Fastener, Layer, Step } from '$lib/api/types.gen';
	import { useSession } from '$lib/job/session.svelte';
	import Dialog from '$lib/ui/Dialog.svelte';
	import { slug } from '$lib/sheet/slug';
	import { KINDS } from './choices';
	import Fasteners from './Fasteners.svelte';

	interface Props {
		open: boolean;
		step: Step;
		/** The layer it is about, as the sheet has it. */
		layer: Layer | undefined;
	}
	let { open = $bindable(), step, layer }: Props = $props();
	const get = useSession();
	const session = $derived(get());
	let how = $state<'words' | 'otherwise' | 'gone' | 'more'>('words');
	let text = $state('');
	let name = $state('');
	let kind = $state<Layer['kind']>('bracket');
	let fasteners = $state<Fastener[]>([]);
	let lead = $state('');
	let more = $state(false);
	$effect(() => {
		if (!open) return;
		untrack(() => {
			fasteners = structuredClone($state.snapshot(layer?.fasteners ?? [])) as Fastener[];
			how = layer ? 'otherwise' : 'words';
			text = lead = name = '';
			more = false;
		});
	});
	const sheet = $derived(session.job.sheet);
	const clean = (f: Fastener): Fastener => ({
		...f,
		at: f.at && f.at.length > f.count ? f.at.slice(0, f.count) : f.at,
		bit: f.bit || undefined,
		thread: f.thread || undefined,
		lengthMM: f.lengthMM || undefined
	});

	function difference(): Difference {
		const base = { id: 1, step: step.id, layer: layer?.id, text: text || undefined };
		const all = ($state.snapshot(fasteners) as Fastener[]).map(clean);
		switch (how) {
			case 'gone':
				return { ...base, gone: true };
			case 'otherwise':
				return {
					...base,
					is: {
						...layer!,
						typical: undefined,
						fasteners: all.length ? all : undefined,
						leads: more && lead ? [...(layer!.leads ?? []), { for: lead }] : layer!.leads
					}
				};
			case 'more': {
				let id = slug(name).slice(0, 34) || 'layer';
				while (sheet.layers?.some((l) => l.id === id)) id += '-2';
				const hides = step.socket ? [step.socket.split('/')[0]!] : undefined;
				return {
					...base,
					layer: undefined,
					is: {
						id,
						name,
						kind,
						after: session.view.off
							.filter((o) => !o.lead && sheet.layers?.some((l) => l.id === o.layer))
							.map((o) => o.layer),
						hides,
						all: hides ? undefined : true,
						fasteners: all.length ? all : undefined
					}
				};
			}
			default:
				return base;
		}
	}
	async function send(e: SubmitEvent) {
		e.preventDefault();
		if (await session.change({ do: 'differs', differs: difference() })) open = false;
	}
</script>

<Dialog bind:open title="It differs here" size="md">
	<form class="grid gap-3" onsubmit={send}>
		<fieldset class="grid gap-1">
			<legend class="pb-1 font-semibold">{layer ? `The ${layer.name}` : step.do}</legend>
			{#if layer}
				<Radio name="how" value="otherwise" bind:group={how} classes={{ label: 'min-h-11' }}
					>It is held otherwise</Radio
				>
				<Radio name="how" value="gone" bind:group={how} classes={{ label: 'min-h-11' }}
					>There is no such layer</Radio
				>
			{/if}
			<Radio name="how" value="more" bind:group={how} classes={{ label: 'min-h-11' }}
				>Something else has to come off first</Radio
			>
			<Radio name="how" value="words" bind:group={how} classes={{ label: 'min-h-11' }}
				>Something else, in words</Radio
			>
		</fieldset>
		{#if how === 'more'}
			<Label
				>What it is<Input
					bind:value={name}
					required
					maxlength={80}
					placeholder="cable guide"
					autocomplete="off"
				/></Label
			>
			<Label
				>Kind<Select bind:value={kind} items={KINDS.map((k) => ({ value: k, name: k }))} /></Label
			>
		{/if}
		{#if how === 'more' || how === 'otherwise'}
			<Fasteners bind:list={fasteners} />
		{/if}
		{#if how === 'otherwise'}
			<Checkbox bind:checked={more}>It has one more lead</Checkbox>
			{#if more}
				<Label
					>What the lead is for<Input
						bind:value={lead}
						required
						maxlength={80}
						autocomplete="off"
					/></Label
				>
			{/if}
		{/if}
		<Label
			>{how === 'words' ? 'What differs' : 'In words, if it helps'}
			<Input
				bind:value={text}
				maxlength={500}
				required={how === 'words'}
				autocomplete="off"
			/></Label
		>
		<Button type="submit">Note it</Button>
	</form>
</Dialog>
