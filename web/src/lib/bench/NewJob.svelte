<script lang="ts">
	import { untrack } from 'svelte';
	import { goto } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { Button, Checkbox, Input, Label, Select } from 'flowbite-svelte';
	import { api } from '$lib/api/client';
	import { refusal } from '$lib/api/refused';
	import type { Intake, JobCard, SheetName } from '$lib/api/types.gen';
	import { draftOf, wishOf } from '$lib/job/wish';
	import WishFields from '$lib/job/WishFields.svelte';
	import WrittenDown from '$lib/job/WrittenDown.svelte';
	import { Live } from '$lib/rule/live.svelte';
	import Dialog from '$lib/ui/Dialog.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import Quiet from '$lib/ui/Quiet.svelte';
	import { when } from '$lib/ui/text';
	import { who } from '$lib/ui/who.svelte';

	let { open = $bindable(), sheets }: { open: boolean; sheets: readonly SheetName[] } = $props();
	const uid = $props.id();
	let line = $state('');
	const read = new Live<Intake>(
		() => line.trim(),
		(text, signal) => api.intake(text, signal)
	);
	/** The form behind the line is open. */
	let formed = $state(false);
	let title = $state('');
	let tag = $state('');
	let owner = $state('');
	let sheet = $state('');
	let lines = $state('');
	let fresh = $state(false);
	let draft = $state(draftOf(undefined));
	let fields = $state.raw<Record<string, string>>({});
	let fault = $state('');
	let key = crypto.randomUUID();
	let busy = $state(false);

	/** What the line says goes into the form; what was typed there by hand stays. */
	let before: Intake | null = null;
	$effect(() => {
		const r = read.answer;
		if (!r) return;
		untrack(() => {
			const from = <T,>(now: T, was: T | undefined, next: T | undefined, none: T): T =>
				next ?? (now === was ? none : now);
			sheet = from(sheet, before?.sheet, r.sheet, '');
			title = from(title, before?.title, r.title, '');
			tag = from(tag, before?.tag, r.tag, '');
			owner = from(owner, before?.owner, r.owner, '');
			fresh = from(fresh, before?.fresh, r.fresh, false);
			const was = before && draftOf(before.wish);
			const next = draftOf(r.wish);
			for (const f of ['text', 'memory', 'drive', 'untouched', 'backedUp'] as const)
				draft[f] = from<string | number>(draft[f], was?.[f], next[f] || undefined, '') as string;
			draft.encrypted = from(draft.encrypted, was?.encrypted, next.encrypted || undefined, '');
			if (next.drive) draft.fast = next.fast;
			draft.tests = [
				...new Set([...draft.tests.filter((t) => !was?.tests.includes(t)), ...next.tests])
			];
			before = r;
		});
	});

	/** Machines that were here under this tag: a job can begin with what was left in one. */
	let known = $state.raw<readonly JobCard[]>([]);
	$effect(() => {
		const typed = tag.trim();
		known = [];
		if (typed.length < 3) return;
		const timer = setTimeout(async () => {
			const found = await api.jobs(fetch, typed).catch(() => null);
			if (found && typed === tag.trim())
				known = found.jobs.filter(
					(c) => c.status.stage === 'closed' && c.tag.toLowerCase() === typed.toLowerCase()
				);
		}, 250);
		return () => clearTimeout(timer);
	});
	async function again(c: JobCard) {
		try {
			const made = await api.again(c.id, { revision: c.revision, key, by: who.name });
			open = false;
			key = crypto.randomUUID();
			await goto(resolve('/jobs/[id]/fit', { id: made.view.job.id }));
		} catch (err) {
			fault = refusal(err).says;
		}
	}

	async function start(e: SubmitEvent) {
		e.preventDefault();
		if (busy) return;
		busy = true;
		try {
			const made = await api.create({
				title,
				tag,
				owner,
				sheet,
				wish: wishOf(draft),
				...(fresh && { fresh }),
				lines,
				by: who.name,
				key
			});
			open = false;
			key = crypto.randomUUID();
			await goto(resolve('/jobs/[id]/fit', { id: made.view.job.id }));
		} catch (err) {
			const { problem, message } = refusal(err);
			fields = Object.fromEntries(
				(problem.errors ?? []).map((x) => [x.pointer, x.says + (x.cure ? '; ' + x.cure : '')])
			);
			fault = message;
			formed = true;
		} finally {
			busy = false;
		}
	}
</script>

{#snippet hint(pointer: string)}
	{#if fields[pointer]}<p id="{uid}{pointer}" class="text-over">{fields[pointer]}</p>{/if}
{/snippet}

<Dialog bind:open title="New job" size="md">
	<form onsubmit={start} class="grid gap-3 text-base" aria-label="New job">
		<div class="grid gap-1">
			<Label for="{uid}line">What is wished, and for which machine</Label>
			<Input
				id="{uid}line"
				bind:value={line}
				maxlength={300}
				autocomplete="off"
				placeholder="32 GB and a fast 1 TB for HS-0417"
				data-autofocus
			/>
			<div aria-live="polite" data-testid="read">
				{#if read.failed}<p class="text-over">{read.failed}</p>{/if}
				{#if read.answer}
					<ul class="grid gap-0.5 pt-1">
						{#each read.answer.means as m, i (i)}
							<li class="flex items-start gap-2">
								<Mark grade="good" />
								<span><strong>{m.words}</strong> {m.says}</span>
							</li>
						{/each}
						{#each read.answer.open as o, i (i)}
							<li class="flex items-start gap-2"><Mark grade="unknown" /> {o}</li>
						{/each}
					</ul>
					{#if read.answer.here && read.answer.job}
						<a
							class="underline"
							href={resolve('/jobs/[id]', { id: read.answer.job })}
							onclick={() => (open = false)}>Go to that job</a
						>
					{/if}
				{/if}
			</div>
		</div>
		{#if !formed}
			<div><Quiet onclick={() => (formed = true)}>Fill in the form</Quiet></div>
		{:else}
			<div class="grid gap-4 sm:grid-cols-2">
				<div class="grid gap-1">
					<Label for="{uid}sheet">Machine sheet</Label>
					<Select
						id="{uid}sheet"
						bind:value={sheet}
						required
						placeholder="Choose a sheet"
						items={sheets.map((s) => ({ value: s.id, name: `${s.name} (${s.class})` }))}
					/>
					{@render hint('/sheet')}
				</div>
				<div class="grid gap-1">
					<Label for="{uid}title">What the owner calls the machine</Label>
					<Input id="{uid}title" bind:value={title} required maxlength={160} />
					{@render hint('/title')}
				</div>
				<div class="grid gap-1">
					<Label for="{uid}owner">Owner</Label>
					<Input id="{uid}owner" bind:value={owner} maxlength={120} />
				</div>
				<div class="grid gap-1">
					<Label for="{uid}tag">Tag or serial number</Label>
					<Input id="{uid}tag" bind:value={tag} maxlength={60} />
				</div>
			</div>
		{/if}
		{#each known as c (c.id)}
			<p class="flex flex-wrap items-center gap-3 border-l-4 border-water-4 pl-3">
				<span>{c.title} was here, closed {when(c.updated)}.</span>
				<Button color="alternative" onclick={() => again(c)}>Begin with what was left in it</Button>
			</p>
		{/each}
		{#if formed}
			<Checkbox bind:checked={fresh}>A new machine: nothing lies in it yet</Checkbox>
			<WrittenDown
				bind:text={lines}
				of={sheet && '/sheets/' + encodeURIComponent(sheet)}
				label={fresh
					? 'What goes into it, and where, as far as you know'
					: 'What lies in it, as far as you know, and what is new'}
				fault={fields['/lines']}
			/>
			<WishFields bind:draft fault={(field) => fields['/wish/' + field]} />
		{/if}
		{#if fault}<p role="alert" class="text-over">{fault}</p>{/if}
		<div class="flex gap-3">
			<Button type="submit" aria-busy={busy} disabled={!sheet && !formed}>Start the job</Button>
			<Button color="alternative" onclick={() => (open = false)}>Cancel</Button>
		</div>
	</form>
</Dialog>
