<script lang="ts">
	// It does not go: what happened, and what follows from that. The rest is planned anew at once;
	// what hands fitted stays, as far as there is a plan with it.
	import { resolve } from '$app/paths';
	import { Button, Input, Label, Radio } from 'flowbite-svelte';
	import { untrack } from 'svelte';
	import { api } from '$lib/api/client';
	import { refusal } from '$lib/api/refused';
	import type { Advice, Layer, Move, Progress, Step, Stuck } from '$lib/api/types.gen';
	import { changes } from '$lib/job/moves';
	import Searching from '$lib/job/Searching.svelte';
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
	const comesOut = $derived(step.phase === 'take out');
	const moves = $derived(
		!layer && Boolean(step.item && step.socket) && (comesOut || step.phase === 'fit')
	);
	let why = $state<'layer' | 'piece' | 'screw' | 'words'>('words');
	let text = $state('');
	let advice = $state.raw<Advice | null>(null);
	let progress = $state.raw<Progress | null>(null);
	let fault = $state('');
	let stage = $state<'ask' | 'planning' | 'planned'>('ask');
	let abort: AbortController | undefined;
	/** What the new plan does otherwise than the one at hand. */
	const moved = $derived(
		advice?.best?.moves.filter((m) => m.item && changes(session.job, m)) ?? []
	);
	const says = (m: Move) =>
		`${session.partOf(m.item!)?.name ?? m.item}: ${m.socket ? 'into ' + m.socket : 'stays out'}`;
	$effect(() => {
		if (open)
			untrack(() => {
				why = layer ? 'layer' : moves ? 'piece' : 'words';
				text = '';
				stage = 'ask';
				advice = null;
			});
		else untrack(() => abort?.abort());
	});
	async function replan() {
		stage = 'planning';
		fault = '';
		abort = new AbortController();
		try {
			advice = await api.plan(
				session.job.id,
				session.view.at,
				{ fitted: true },
				{ signal: abort.signal, tell: (p) => (progress = p) }
			);
		} catch (e) {
			if (abort.signal.aborted) open = false;
			else fault = refusal(e).says;
		}
		progress = null;
		stage = 'planned';
	}
	async function take() {
		if (await session.change({ do: 'moves', moves: advice!.best!.moves })) open = false;
	}
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
		if (!did) return;
		// Another way round a layer needs no other plan.
		if (why === 'words' || session.view.blocks.length === 0) open = false;
		else await replan();
	}
</script>

<Dialog bind:open title="It does not go">
	{#if stage === 'planning'}
		{#if progress}<Searching {progress} onstop={() => abort?.abort()} />{:else}
			<p role="status">Planning the rest anew…</p>
		{/if}
	{:else if stage === 'planned'}
		<div class="grid gap-3" data-testid="replanned" aria-live="polite">
			{#if fault}
				<p role="alert" class="text-over">{fault}</p>
				<Button color="alternative" onclick={() => void replan()}>Ask again</Button>
			{:else if advice?.best && moved.length > 0}
				<p class="first-letter:uppercase">{advice.proof}.</p>
				<ul class="list-disc pl-5 text-lg">
					{#each moved as m (m.item)}<li>{says(m)}</li>{/each}
				</ul>
				<ul class="text-soft">
					{#each advice.best.says as s (s)}<li class="first-letter:uppercase">{s}</li>{/each}
				</ul>
				<Button onclick={() => void take()}>Take this plan, and go on</Button>
			{:else}
				<p class="font-semibold">There is no plan without it: {advice?.proof}.</p>
				<ul class="list-disc pl-5">
					{#each advice?.clash ?? [] as c (c)}<li>{c}</li>{/each}
				</ul>
				{#if advice?.help.length}
					<p>What would help:</p>
					<ul class="list-disc pl-5">
						{#each advice.help as h (h.says)}<li>{h.says}</li>{/each}
					</ul>
				{/if}
			{/if}
			<a class="underline" href={resolve('/jobs/[id]/fit', { id: session.job.id })}
				>Plan it by hand in Fit</a
			>
		</div>
	{:else}
		<form class="grid gap-3" onsubmit={send}>
			<p class="text-soft">Never force it. Say what happened, and the rest is planned anew.</p>
			<fieldset class="grid gap-1">
				<legend class="pb-1 font-semibold">{step.do}</legend>
				{#if layer}
					<Radio name="why" value="layer" bind:group={why} classes={{ label: 'min-h-11' }}
						>The {layer.name} does not come off: another way, if there is one</Radio
					>
				{/if}
				{#if moves}
					<Radio name="why" value="piece" bind:group={why} classes={{ label: 'min-h-11' }}
						>{comesOut
							? `It does not come out of ${step.socket}: it stays`
							: `It does not go into ${step.socket}: it gets another place`}</Radio
					>
				{/if}
				<Radio name="why" value="screw" bind:group={why} classes={{ label: 'min-h-11' }}
					>A screw is stripped, missing or dropped</Radio
				>
				<Radio name="why" value="words" bind:group={why} classes={{ label: 'min-h-11' }}
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
	{/if}
</Dialog>
