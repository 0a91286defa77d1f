<script lang="ts">
	// Beside the step: what is off, what lies in the tray, what happened.
	import { Button, Checkbox, Input } from 'flowbite-svelte';
	import type { Mishap, Step } from '$lib/api/types.gen';
	import { useSession } from '$lib/job/session.svelte';
	import * as ask from '$lib/step/api';
	import { refused } from '$lib/api/refused';
	import Mark from '$lib/ui/Mark.svelte';
	import Quiet from '$lib/ui/Quiet.svelte';
	import { toasts } from '$lib/ui/toasts.svelte';
	import { who } from '$lib/ui/who.svelte';
	import Fetched from '$lib/ui/Fetched.svelte';
	import Tray from './Tray.svelte';

	let { step }: { step: Step } = $props();
	const get = useSession();
	const session = $derived(get());
	const view = $derived(session.view);
	const open = $derived(view.incidents.filter((i) => !i.ended));
	let agreeing = $state(0);
	let reason = $state('');
	let sure = $state(false);
	const back = (id: string | undefined) => id !== undefined && session.tick(id) !== undefined;

	const end = (i: Mishap, ended: NonNullable<Mishap['ended']>) =>
		session.change({
			do: 'settle',
			value: String(i.id),
			incident: { id: i.id, kind: i.kind, ended },
			text: ended === 'agreed' ? reason : undefined,
			sure: ended === 'agreed' ? sure : undefined
		});
	async function agree(e: SubmitEvent) {
		e.preventDefault();
		const i = open.find((x) => x.id === agreeing);
		if (i && (await end(i, 'agreed'))) agreeing = 0;
	}
	/** One press: into the sheet of this job, and into the shop's. */
	async function intoSheet(id: number) {
		const { id: job } = session.job;
		if (!(await session.change({ do: 'to sheet', value: String(id) }))) return;
		try {
			const kept = await ask.keepDifference(job, { id, by: who.name });
			toasts.add('done', kept.says);
		} catch (e) {
			refused(e);
		}
	}
</script>

<div class="grid content-start gap-4">
	{#if open.length > 0}
		<section aria-label="What happened" class="grid gap-2">
			{#each open as i (i.id)}
				<div class="border-l-4 border-over bg-overtint px-3 py-2">
					<p class="flex gap-2 font-semibold">
						<Mark grade={i.holds ? 'stops' : 'warns'} />{i.says}
					</p>
					{#if i.text}<p>{i.text}</p>{/if}
					{#if i.holds}<p>No power until it is found.</p>{/if}
					{#if agreeing === i.id}
						<form class="grid gap-2" onsubmit={agree}>
							<Input
								bind:value={reason}
								required
								maxlength={500}
								aria-label="Why it may stay, and who agreed"
								placeholder="why it may stay, and who agreed"
								autocomplete="off"
							/>
							<Checkbox bind:checked={sure}>I know that it can burn the board</Checkbox>
							<div class="flex gap-2">
								<Button type="submit" color="alternative" disabled={i.holds && !sure}
									>It stays</Button
								>
								<Button color="alternative" onclick={() => (agreeing = 0)}>Cancel</Button>
							</div>
						</form>
					{:else}
						<div class="flex flex-wrap gap-x-3">
							<Quiet aria-label="Found: {i.says}" onclick={() => end(i, 'found')}>Found</Quiet>
							{#if !i.holds}<Quiet
									aria-label="Another was taken: {i.says}"
									onclick={() => end(i, 'replaced')}>Another was taken</Quiet
								>{/if}
							<Quiet
								aria-label="It stays so: {i.says}"
								onclick={() => {
									agreeing = i.id;
									reason = '';
									sure = false;
								}}>It stays so…</Quiet
							>
						</div>
					{/if}
				</div>
			{/each}
		</section>
	{/if}
	{#if view.differs.length + view.stuck.length > 0}
		<section aria-label="What differs" class="grid gap-2">
			{#each view.differs as d (d.id)}
				<div class="border border-line px-3 py-2">
					<p>{d.says}{d.text && !d.says.includes(d.text) ? `: ${d.text}` : ''}</p>
					{#if d.taken}
						<p class="text-soft">in the sheet</p>
					{:else if d.can}
						<Button
							size="sm"
							color="alternative"
							class="min-h-11"
							aria-label="Change the sheet: {d.says}"
							onclick={() => intoSheet(d.id)}>Change the sheet</Button
						>
					{/if}
				</div>
			{/each}
			{#each view.stuck as s (s.id)}
				<div class="border border-line px-3 py-2">
					<p>{s.says}</p>
					<Quiet
						aria-label="It goes after all: {s.says}"
						onclick={() => session.change({ do: 'unstuck', value: String(s.id) })}
						>It goes after all</Quiet
					>
				</div>
			{/each}
		</section>
	{/if}
	<section aria-labelledby="off-h">
		<h2 id="off-h" class="text-lg">Off now</h2>
		<ul data-testid="off">
			{#each view.off as o (o.back)}
				<li class="flex items-center gap-2">
					<Mark
						grade={o.lead ? 'warns' : 'off'}
						label={o.lead ? 'lead' : 'layer'}
						size={18}
					/>{o.says}
				</li>
			{:else}
				<li class="text-soft">Nothing: it is closed.</li>
			{/each}
		</ul>
	</section>
	<section aria-labelledby="tray-h">
		<h2 id="tray-h" class="pb-1 text-lg">Tray</h2>
		<Tray cells={view.tray} step={step.id} back={(c) => back(c.back)} />
	</section>
	<Fetched load={() => import('./Photos.svelte')} also={{ step }} />
</div>
