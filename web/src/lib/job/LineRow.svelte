<script lang="ts">
	// One line of a screen: what should be there, and what is.
	import { Button, Input } from 'flowbite-svelte';
	import type { Line } from '$lib/api/types.gen';
	import Mark, { type Grade } from '$lib/ui/Mark.svelte';
	import { when } from '$lib/ui/text';

	interface Props {
		line: Line;
		locked: boolean;
		onconfirm: () => Promise<boolean>;
		onread: (text: string) => Promise<boolean>;
		onforget: () => Promise<boolean>;
		/** Absent where a difference needs no reason: it is a fact about the machine as it came. */
		onexplain?: (text: string) => Promise<boolean>;
	}
	let { line, locked, onconfirm, onread, onforget, onexplain }: Props = $props();
	const uid = $props.id();
	let typing = $state(false);
	let shown = $state('');
	let reason = $state('');

	const GRADE: Record<Line['verdict'], Grade> = {
		'not asked': 'notes',
		'not looked at': 'open',
		agrees: 'good',
		differs: 'stops',
		explained: 'notes',
		noted: 'notes'
	};

	async function read(e: SubmitEvent) {
		e.preventDefault();
		if (await onread(shown)) {
			typing = false;
			shown = '';
		}
	}
	async function explain(e: SubmitEvent) {
		e.preventDefault();
		if (await onexplain?.(reason)) reason = '';
	}
</script>

<li
	class={[
		'grid gap-x-5 gap-y-1 border-b border-line py-3 md:grid-cols-[1fr_1.2fr_1.3fr]',
		line.verdict === 'differs' && 'bg-overtint'
	]}
	data-line={line.id}
>
	<div class="flex items-start gap-2 pt-1">
		<span class="mt-0.5"><Mark grade={GRADE[line.verdict]} label={line.verdict} /></span>
		<div>
			<h3 class="font-semibold">{line.about}</h3>
			{#if line.serial}<p>serial <span class="font-semibold">{line.serial}</span></p>{/if}
			<p class="text-soft">{line.verdict}</p>
		</div>
	</div>
	<div>
		<p class="text-xl font-semibold">{line.expected}</p>
		{#each line.shows as s (s.where)}
			<p><span class="text-soft">{s.where}:</span> {s.text}</p>
		{/each}
		{#if line.normal}
			<details>
				<summary class="min-h-11 cursor-pointer py-2 text-soft">what looks wrong and is not</summary
				>
				<p>{line.normal}</p>
			</details>
		{/if}
	</div>
	<div class="flex flex-wrap content-start items-start gap-2">
		{#if line.reading}
			<p class="min-w-56 flex-1">
				<span class="text-soft">seen:</span> <strong>{line.seen}</strong>
				<span class="text-soft"
					>{line.reading.origin}, {line.reading.by}, {when(line.reading.at)}</span
				>
			</p>
			{#if line.proves}<p class="w-full max-w-prose">{line.proves}</p>{/if}
			{#if line.reason}<p class="w-full">
					<span class="text-soft">why that is right:</span>
					{line.reason}
				</p>{/if}
		{/if}
		{#if line.was}
			<p class="w-full text-soft">read before the change, and counts no more: {line.was}</p>
		{/if}
		{#if !locked}
			{#if typing}
				<form class="flex flex-wrap gap-2" onsubmit={read}>
					<div class="w-44">
						<Input
							id="{uid}s"
							bind:value={shown}
							aria-label="What is shown for {line.about}"
							placeholder="or: not there"
							required
							maxlength={80}
							autocomplete="off"
						/>
					</div>
					<Button type="submit">Save</Button>
					<Button color="alternative" onclick={() => (typing = false)}>Cancel</Button>
				</form>
			{:else}
				<div class="flex flex-wrap gap-2">
					{#if line.verdict === 'not looked at'}
						{#if line.exact}
							<Button color="alternative" aria-label="As expected: {line.about}" onclick={onconfirm}
								>As expected</Button
							>
						{/if}
						<Button
							color="alternative"
							aria-label="It shows something else: {line.about}"
							onclick={() => {
								typing = true;
								queueMicrotask(() => document.getElementById(`${uid}s`)?.focus());
							}}>It shows…</Button
						>
					{:else}
						<Button color="alternative" aria-label="Read again: {line.about}" onclick={onforget}
							>Read again</Button
						>
					{/if}
				</div>
			{/if}
			{#if line.verdict === 'differs' && !onexplain}
				<p class="w-full">
					It {line.says}. Correct what was found, or read again.
				</p>
			{:else if line.verdict === 'differs'}
				<p class="w-full">
					It {line.says}. Fix it and read again, or say why it is right:
				</p>
				<form class="flex flex-wrap gap-2" onsubmit={explain}>
					<div class="w-72">
						<Input
							bind:value={reason}
							aria-label="Why {line.about} is right all the same"
							required
							maxlength={500}
							autocomplete="off"
						/>
					</div>
					<Button type="submit" color="alternative">Explain</Button>
				</form>
			{/if}
		{/if}
	</div>
</li>
