<script lang="ts">
	// The stages of a job as one line: those that are finished, the one at work, those to come,
	// whose plans can be looked at and changed before.
	import { Button, Input, Label } from 'flowbite-svelte';
	import Quiet from '$lib/ui/Quiet.svelte';
	import Dialog from '$lib/ui/Dialog.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { useDesk } from './desk.svelte';

	const uid = $props.id();
	const desk = useDesk();
	const session = $derived(desk.session);
	const stages = $derived(session.view.stages);
	let name = $state('');
	let first = $state('');

	async function add(e: SubmitEvent) {
		e.preventDefault();
		const job = session;
		if (!(await job.change({ do: 'add stage', text: name, value: first }))) return;
		desk.dialog = undefined;
		name = first = '';
		await job.look(job.view.stages.length - 1 - job.view.stages.findIndex((s) => s.at === 0));
	}
</script>

{#if stages.length > 0}
	<div class="flex flex-wrap items-center gap-x-2 gap-y-1 pb-1" data-testid="stages">
		<ol class="flex flex-wrap items-center gap-1" aria-label="Stages of this job">
			{#each stages as s, i (s.at)}
				<li class="flex items-center gap-1">
					{#if i > 0}<span aria-hidden="true" class="text-soft">then</span>{/if}
					{#if s.at < 0}
						<span class="flex min-h-11 items-center gap-1.5 px-2 text-soft"
							><Mark grade="good" size={16} label="finished" /> {s.name}</span
						>
					{:else}
						<button
							class={[
								'min-h-11 border-b-4 px-3',
								session.view.at === s.at
									? 'border-ink font-semibold'
									: 'border-transparent hover:bg-water-1'
							]}
							aria-pressed={session.view.at === s.at}
							onclick={() => session.look(s.at)}>{s.name}{s.at === 0 ? ' (now)' : ''}</button
						>
					{/if}
				</li>
			{/each}
		</ol>
		{#if !session.closed}
			<Quiet class="text-soft" onclick={() => (desk.dialog = 'stage')}>Add a stage</Quiet>
			{#if session.view.at > 0}
				<Quiet
					class="text-soft"
					onclick={() => session.change({ do: 'drop stage', value: String(session.view.at) })}
					>Drop this stage</Quiet
				>
			{/if}
		{/if}
	</div>
{/if}

<Dialog
	bind:open={() => desk.dialog === 'stage', (yes) => desk.ask('stage', yes)}
	title="One more stage"
>
	<form class="grid gap-3" onsubmit={add} aria-label="One more stage">
		<p>
			A drive in a box outside now and inside after the copy; a disk that stays unplugged until the
			system is installed. Each stage has its own plan, order and readings, and begins where the one
			before it ended.
		</p>
		{#if stages.length === 0}
			<div>
				<Label for="{uid}f">What the present stage is for</Label>
				<Input id="{uid}f" bind:value={first} required maxlength={120} autocomplete="off" />
			</div>
		{/if}
		<div>
			<Label for="{uid}n">What the next one is for</Label>
			<Input id="{uid}n" bind:value={name} required maxlength={120} autocomplete="off" />
		</div>
		<div class="flex gap-3">
			<Button type="submit" aria-busy={session.busy}>Add it</Button>
			<Button color="alternative" onclick={() => (desk.dialog = undefined)}>Cancel</Button>
		</div>
	</form>
</Dialog>
