<script lang="ts">
	// How a test stands that a step asks for: a test is told, not ticked.
	import { Button, Input } from 'flowbite-svelte';
	import type { Change, Step } from '$lib/api/types.gen';
	import { when } from '$lib/ui/text';
	import { useSession } from './session.svelte';

	let { step, onchange }: { step: Step; onchange: (change: Change) => Promise<boolean> } = $props();
	const uid = $props.id();
	const get = useSession();
	const session = $derived(get());
	const test = $derived(session.test(step.id));
	/** When it is done, roughly. */
	const ends = $derived(
		test?.begun && step.runs
			? new Date(new Date(test.begun).getTime() + step.runs * 60_000).toISOString()
			: undefined
	);
	const memory = $derived(step.test === 'memory');
	let telling = $state<'' | 'passed' | 'errors'>('');
	let text = $state('');

	const begin = () =>
		onchange({ do: 'test', step: step.id, result: { step: step.id, state: 'running' } });
	function ask(how: 'passed' | 'errors') {
		telling = how;
		text = '';
		queueMicrotask(() => document.getElementById(`${uid}t`)?.focus());
	}
	async function tell(e: SubmitEvent) {
		e.preventDefault();
		if (telling === '') return;
		const passes = memory && telling === 'passed';
		const said = passes ? { passes: Number(text) } : { text };
		if (
			await onchange({
				do: 'test',
				step: step.id,
				result: { step: step.id, state: telling, ...said }
			})
		)
			telling = '';
	}
</script>

<div class="flex flex-wrap items-center gap-3 py-1" data-testid="test">
	{#if test?.state === 'running'}
		<span class="text-xl">running since {when(test.begun)}</span>
		{#if ends}<span class="text-soft">done about {when(ends)}</span>{/if}
	{:else if test?.state === 'passed'}
		<span class="text-xl"
			>passed{test.passes
				? `, ${String(test.passes)} ${test.passes === 1 ? 'pass' : 'passes'}`
				: ''}{test.text ? `, ${test.text}` : ''}</span
		>
		<span class="text-soft">{test.by}, {when(test.at)}</span>
	{:else if test?.state === 'errors'}
		<span class="text-xl text-over">errors: {test.text}</span>
		<span class="text-soft">{test.by}, {when(test.at)}</span>
	{/if}
	{#if !session.closed && !session.view.status.stops}
		{#if telling}
			<form class="flex flex-wrap items-center gap-2" onsubmit={tell} aria-label="How it ended">
				<div class="w-60">
					<Input
						id="{uid}t"
						bind:value={text}
						type={memory && telling === 'passed' ? 'number' : 'text'}
						min={1}
						max={100000}
						aria-label={telling === 'errors'
							? 'What the errors were'
							: memory
								? 'How many passes'
								: 'How long, and what it said'}
						placeholder={telling === 'errors'
							? 'what the errors were'
							: memory
								? 'how many passes'
								: 'how long, what it said'}
						required={telling === 'errors' || memory}
						maxlength={500}
						autocomplete="off"
					/>
				</div>
				<Button type="submit">Save</Button>
				<Button color="alternative" onclick={() => (telling = '')}>Cancel</Button>
			</form>
		{:else if session.tick(step.id)}
			<Button
				color="alternative"
				aria-label="Test it again: {step.do}"
				onclick={() => onchange({ do: 'untick', step: step.id })}>Test it again</Button
			>
		{:else}
			{#if test?.state !== 'running'}
				<Button aria-label="It runs now: {step.do}" onclick={begin}>It runs now</Button>
			{/if}
			<Button color="alternative" aria-label="It passed: {step.do}" onclick={() => ask('passed')}
				>It passed…</Button
			>
			<Button
				color="alternative"
				aria-label="It met errors: {step.do}"
				onclick={() => ask('errors')}>It met errors…</Button
			>
		{/if}
	{/if}
</div>
