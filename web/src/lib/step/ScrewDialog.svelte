<script lang="ts">
	// A screw that is missing, dropped into the machine, or stripped.
	import { Button, Input, Label, Radio, Select } from 'flowbite-svelte';
	import type { Fastener, Incident, Layer, Step } from '$lib/api/types.gen';
	import { useSession } from '$lib/job/session.svelte';
	import Dialog from '$lib/ui/Dialog.svelte';

	interface Props {
		open: boolean;
		step: Step;
		layer: Layer | undefined;
	}
	let { open = $bindable(), step, layer }: Props = $props();
	const get = useSession();
	const session = $derived(get());
	let kind = $state<Incident['kind']>('dropped');
	let which = $state('');
	let count = $state(1);
	let text = $state('');
	const kinds = $derived(layer?.fasteners ?? []);
	const named = (f: Fastener) =>
		[`${f.count}`, f.thread, f.lengthMM && `${f.lengthMM} mm`, f.where].filter(Boolean).join(' · ');

	async function send(e: SubmitEvent) {
		e.preventDefault();
		const screw = kinds[Number(which)];
		const incident = {
			id: 1,
			kind,
			step: step.id,
			layer: layer?.id,
			screw: which === '' ? undefined : screw,
			count,
			text: text || undefined
		};
		if (await session.change({ do: 'incident', incident })) {
			open = false;
			text = '';
			count = 1;
		}
	}
</script>

<Dialog bind:open title="A screw">
	<form class="grid gap-3" onsubmit={send}>
		<fieldset class="grid gap-1">
			<legend class="pb-1 font-semibold">What happened</legend>
			<Radio name="what" value="dropped" bind:group={kind} classes={{ label: 'min-h-11' }}
				>It dropped into the machine</Radio
			>
			<Radio name="what" value="missing" bind:group={kind} classes={{ label: 'min-h-11' }}
				>It was not there</Radio
			>
			<Radio name="what" value="stripped" bind:group={kind} classes={{ label: 'min-h-11' }}
				>Its head or thread is gone</Radio
			>
		</fieldset>
		{#if kind === 'dropped'}
			<p class="border-l-4 border-over bg-overtint px-3 py-2">
				No power until it is found: a screw under the board can burn it.
			</p>
		{/if}
		{#if kinds.length > 0}
			<Label
				>Which
				<Select
					bind:value={which}
					placeholder="another, or not known"
					items={kinds.map((f, i) => ({ value: String(i), name: named(f) }))}
				/></Label
			>
		{/if}
		<Label>How many<Input type="number" min={1} max={64} bind:value={count} required /></Label>
		<Label
			>In words, if it helps<Input bind:value={text} maxlength={500} autocomplete="off" /></Label
		>
		<Button type="submit">Note it</Button>
	</form>
</Dialog>
