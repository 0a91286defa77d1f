<script lang="ts">
	// One step of the order: done, left out for a reason, or, where it is a test, how that stands.
	import { Button, Checkbox, Input } from 'flowbite-svelte';
	import type { Change, Step } from '$lib/api/types.gen';
	import Locator from '$lib/chart/Locator.svelte';
	import Quiet from '$lib/ui/Quiet.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { when } from '$lib/ui/text';
	import Ends from './Ends.svelte';
	import Held from './Held.svelte';
	import TestState from './TestState.svelte';
	import { useSession } from './session.svelte';

	interface Props {
		step: Step;
		next: boolean;
		/** Sends a change and brings the next step into view. */
		onchange: (change: Change) => Promise<boolean>;
	}
	let { step, next, onchange }: Props = $props();
	const get = useSession();
	const session = $derived(get());
	const tick = $derived(session.tick(step.id));
	const test = $derived(session.test(step.id));
	let leaving = $state(false);
	let reason = $state('');
	let sure = $state(false);

	async function leave(e: SubmitEvent) {
		e.preventDefault();
		if (await onchange({ do: 'leave out', step: step.id, text: reason, sure })) {
			leaving = sure = false;
			reason = '';
		}
	}
	/** The ends of the serial numbers of what a step erases. */
	let ends = $state('');
	const done = () => onchange({ do: 'tick', step: step.id, ...(step.confirm && { text: ends }) });
	async function toggle(box: HTMLInputElement) {
		await (box.checked ? done() : onchange({ do: 'untick', step: step.id }));
		if (box.isConnected) box.checked = session.tick(step.id) !== undefined; // else they went on
	}
</script>

<li
	class={[
		'scroll-mt-16 scroll-mb-4 border-b border-line py-3 max-sm:scroll-mb-16',
		next && 'bg-water-1'
	]}
	data-step={step.id}
>
	{#each tick ? [] : step.cautions as c, i (i)}
		<p class="mb-2 ml-14 border-l-4 border-over bg-overtint px-3 py-2 text-2xl">
			<strong class="text-over">{c.topic}.</strong>
			{c.says}
		</p>
	{/each}
	{#if step.held && !tick}<Held {step} class="mb-2 ml-14" />{/if}
	{#if step.confirm && !tick && !step.held && !session.closed}
		<Ends
			asks={step.asks ?? []}
			what={step.do}
			bind:value={ends}
			onenter={() => void done()}
			class="mb-2 ml-14"
		/>
	{/if}
	{#if step.test || tick?.reason}
		<div class="grid min-h-12 grid-cols-[3.5rem_1fr] items-start">
			<span class="mt-1 ml-2">
				<Mark
					grade={tick?.reason
						? 'notes'
						: tick !== undefined
							? 'good'
							: test?.state === 'errors'
								? 'stops'
								: 'open'}
					size={26}
					label={tick?.reason ? 'left out' : tick ? 'passed' : (test?.state ?? 'not begun')}
				/>
			</span>
			<span class="text-2xl leading-9 font-semibold">{step.do}</span>
		</div>
	{:else}
		<label class="grid min-h-12 cursor-pointer grid-cols-[3.5rem_1fr] items-start">
			<input
				type="checkbox"
				class="mt-0.5 ml-2 size-8 rounded-none border-2 border-ink bg-raised checked:bg-primary-600 dark:bg-raised dark:checked:bg-primary-600"
				checked={tick !== undefined}
				disabled={session.closed || (Boolean(step.held) && !tick)}
				onchange={(e) => toggle(e.currentTarget)}
			/>
			<span class="text-2xl leading-9 font-semibold">{step.do}</span>
		</label>
	{/if}
	<div class="ml-14 grid gap-4 md:flex">
		{#if step.how.length > 0 && !tick}
			<ul class="list-disc pl-6 text-2xl">
				{#each step.how as h, i (i)}<li>{h}</li>{/each}
			</ul>
		{/if}
		{#if step.socket && !tick}
			<div class="w-48 shrink-0 md:ml-auto">
				<Locator sheet={session.job.sheet} socket={step.socket} />
			</div>
		{/if}
		{#if tick?.reason}
			<p>
				left out by {tick.by}, {when(tick.at)}: {tick.reason}
				{#if !session.closed}
					<Quiet
						aria-label="Do it after all: {step.do}"
						onclick={() => onchange({ do: 'untick', step: step.id })}>Do it after all</Quiet
					>
				{/if}
			</p>
		{:else if tick && !test}
			<p class="text-soft">
				done by {tick.by}, {when(tick.at)}
				{#if session.unsaved(step.id)}<strong class="text-over">· not saved yet</strong>{/if}
			</p>
		{/if}
	</div>
	{#if step.test && !tick?.reason}<div class="ml-14"><TestState {step} {onchange} /></div>{/if}
	{#if !tick && !session.closed && !session.view.status.stops}
		<div class="ml-14">
			{#if leaving}
				<form class="grid max-w-prose gap-2" onsubmit={leave} aria-label="Leave out: {step.do}">
					{#if step.danger}
						<p class="border-l-4 border-over bg-overtint px-3 py-2">{step.danger}</p>
					{/if}
					<Input
						bind:value={reason}
						aria-label="Why it is left out"
						placeholder="why it is left out"
						required
						maxlength={500}
						autocomplete="off"
					/>
					{#if step.danger}
						<Checkbox bind:checked={sure}>I know that, and leave it out</Checkbox>
					{/if}
					<div class="flex gap-3">
						<Button type="submit" color="alternative" disabled={Boolean(step.danger) && !sure}
							>Leave it out</Button
						>
						<Button color="alternative" onclick={() => (leaving = false)}>Cancel</Button>
					</div>
				</form>
			{:else}
				<Quiet
					class="text-soft"
					aria-label="Leave it out: {step.do}"
					onclick={() => (leaving = true)}>leave it out…</Quiet
				>
			{/if}
		</div>
	{/if}
</li>
