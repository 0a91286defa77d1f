<script lang="ts">
	// It does not go: what happened, and what follows from that.
	import { Button, Input, Label, Radio } from 'flowbite-svelte';
	import { untrack } from 'svelte';
	import type { Layer, Step, Stuck } from '$lib/api/types.gen';
	import { useSession } from '$lib/job/session.svelte';
	import Dialog from '$lib/ui/Dialog.svelte';

	interface Props {
		open: boolean;
		step: Step;
		layer: Layer | undefined;
		/** It is a screw: that is asked elsewhere. */
		onscrew: () => void;
	}
	let { open = $bindable(), step, layer, onscrew }: Props = $props();
	const get = useSession();
	const session = $derived(get());
	const fits = $derived(!layer && Boolean(step.item && step.socket) && step.phase === 'fit');
	let why = $state<'layer' | 'piece' | 'screw' | 'words'>('words');
	let text = $state('');
	$effect(() => {
		if (open)
			untrack(() => {
				why = layer ? 'layer' : fits ? 'piece' : 'words';
				text = '';
			});
	});
	async function send(e: SubmitEvent) {
		e.preventDefault();
		if (why === 'screw') {
			open = false;
			onscrew();
			return;
		}
		const stuck: Stuck = { id: 1, step: step.id, text: text || undefined };
		const did =
			why === 'words'
				? await session.change({ do: 'differs', differs: { id: 1, step: step.id, text } })
				: await session.change({
						do: 'stuck',
						stuck:
							why === 'layer'
								? { ...stuck, layer: layer!.id }
								: { ...stuck, item: step.item, socket: step.socket }
					});
		if (did) open = false;
	}
</script>

<Dialog bind:open title="It does not go">
	<form class="grid gap-3" onsubmit={send}>
		<p class="text-soft">Never force it. Say what happened, and the rest is planned anew.</p>
		<fieldset class="grid gap-1">
			<legend class="pb-1 font-semibold">{step.do}</legend>
			{#if layer}
				<Radio name="why" value="layer" bind:group={why} class="min-h-11"
					>The {layer.name} does not come off: another way, if there is one</Radio
				>
			{/if}
			{#if fits}
				<Radio name="why" value="piece" bind:group={why} class="min-h-11"
					>It does not go into {step.socket}: it gets another place</Radio
				>
			{/if}
			<Radio name="why" value="screw" bind:group={why} class="min-h-11"
				>A screw is stripped, missing or dropped</Radio
			>
			<Radio name="why" value="words" bind:group={why} class="min-h-11"
				>Something else, in words</Radio
			>
		</fieldset>
		{#if why !== 'screw'}
			<Label
				>{why === 'words' ? 'What happened' : 'In words, if it helps'}
				<Input
					bind:value={text}
					maxlength={500}
					required={why === 'words'}
					autocomplete="off"
				/></Label
			>
		{/if}
		<Button type="submit"
			>{why === 'screw'
				? 'Go on'
				: why === 'words'
					? 'Note it'
					: 'Note it, and plan the rest anew'}</Button
		>
	</form>
</Dialog>
