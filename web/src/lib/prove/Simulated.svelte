<script lang="ts">
	// A machine that stands in for a real one: started, read, set, opened and put right here.
	import { Button, Select } from 'flowbite-svelte';
	import type { Line, SimPlace, SimView } from '$lib/api/types.gen';
	import { useSession } from '$lib/job/session.svelte';
	import Quiet from '$lib/ui/Quiet.svelte';
	import type { Bench } from './bench.svelte';

	let { bench }: { bench: Bench } = $props();
	const uid = $props.id();
	const get = useSession();
	const session = $derived(get());
	const view = $derived(bench.view);
	let place = $state('');
	const at = $derived(view?.places.find((p) => p.socket === place));

	const TITLE: Record<Line['screen'], string> = {
		'set-up': 'Set-up',
		'boot-list': 'Boot list',
		installer: 'Installer',
		system: 'Running system'
	};
	const HANDS: Record<SimPlace['hands'][number], string> = {
		reseat: 'Out and in again',
		clean: 'Clean its contacts',
		lead: 'Another data lead',
		plug: 'Press its power plug on',
		replace: 'Another of its kind',
		move: 'Back to its own place'
	};
	const screens = $derived(
		(Object.keys(TITLE) as Line['screen'][])
			.map((s) => ({ s, lines: view?.screens.filter((l) => l.screen === s) ?? [] }))
			.filter((x) => x.lines.length > 0)
	);
	const minutes = (v: SimView) => Math.round(v.minutes);
	const make = (count: number) =>
		bench.do({ do: 'make', count, seed: Math.floor(Math.random() * 1e9) });

	/** Takes what a screen shows into the job, as if it had been read off. */
	async function take(lines: SimView['screens']) {
		await session.change({
			do: 'observe',
			observation: {
				format: 'deepbay/observation',
				version: 1,
				readings: lines.map((l) => l.reading)
			}
		});
	}
	async function probe() {
		if (view?.probe) await session.change({ do: 'observe', observation: view.probe });
	}
</script>

<details class="border-2 border-line px-4" data-testid="sim" open={view?.there}>
	<summary class="min-h-12 cursor-pointer py-3">
		<h2 class="inline text-xl">Simulated machine</h2>
		<span class="text-soft">
			{#if view?.there}{view.on ? 'on' : view.open ? 'off and open' : 'off'}, {minutes(view)} min of hands{:else}to
				do the whole job without one{/if}
		</span>
	</summary>
	<div class="grid gap-4 pb-4" aria-busy={bench.busy}>
		{#if !view?.there}
			<p class="max-w-prose">
				It has the parts of this job where they are planned, and its settings as they were found. It
				may have a fault, which is yours to find.
			</p>
			<div class="flex flex-wrap gap-2">
				<Button onclick={() => make(1)}>With one hidden fault</Button>
				<Button color="alternative" onclick={() => make(2)}>With two</Button>
				<Button color="alternative" onclick={() => make(0)}>Without</Button>
			</div>
		{:else}
			<div class="flex flex-wrap items-center gap-2">
				{#if view.on}
					<Button color="alternative" onclick={() => bench.do({ do: 'stop' })}>Shut it down</Button>
				{:else}
					<Button onclick={() => bench.do({ do: 'start' })}
						>{view.open ? 'Close and start it' : 'Start it'}</Button
					>
				{/if}
				{#if view.probe && !session.closed}
					<Button onclick={probe}>Let it tell about itself</Button>
				{/if}
				<span class="grow"></span>
				<Quiet onclick={() => bench.do({ do: 'reveal' })}>What is hidden?</Quiet>
				<Quiet onclick={() => bench.do({ do: 'take' })}>Take it away</Quiet>
			</div>
			<p role="status" data-testid="sim-says" class={['min-h-6', !view.says && 'sr-only']}>
				{view.says || 'It stands on the bench.'}
			</p>
			{#each view.hidden as h (h.fault)}<p class="first-letter:uppercase">{h.says}.</p>{/each}
			<div class="grid gap-x-6 gap-y-4 md:grid-cols-2">
				{#each screens as x (x.s)}
					<section aria-labelledby="{uid}{x.s}" class="bg-land p-3">
						<div class="flex flex-wrap items-center gap-2 border-b border-coast">
							<h3 id="{uid}{x.s}" class="grow font-semibold">{TITLE[x.s]}</h3>
							{#if !session.closed}
								<Quiet aria-label="Take into the job: {TITLE[x.s]}" onclick={() => take(x.lines)}
									>Take into the job</Quiet
								>
							{/if}
						</div>
						<dl class="grid grid-cols-[1fr_auto] gap-x-4">
							{#each x.lines as l (l.line)}
								<dt class="min-w-0">{l.about}</dt>
								<dd class="max-w-56 text-right font-semibold">{l.shows}</dd>
							{/each}
						</dl>
					</section>
				{:else}
					<p>{view.on ? 'Nothing is to be seen on the screen.' : 'It is off.'}</p>
				{/each}
			</div>
			<div class="flex flex-wrap items-end gap-3">
				{#each view.settings as s (s.id)}
					<label>
						<span class="text-soft">{s.name}</span>
						<Select
							value={s.value}
							items={s.options.map((o) => ({ value: o.value, name: o.name }))}
							placeholder=""
							onchange={(e) =>
								bench.do({
									do: 'set',
									setting: s.id,
									value: (e.target as HTMLSelectElement).value
								})}
						/>
					</label>
				{/each}
			</div>
			<div class="flex flex-wrap items-end gap-3">
				<label>
					<span class="text-soft">Hands at</span>
					<Select
						bind:value={place}
						items={view.places.map((p) => ({ value: p.socket, name: `${p.socket}: ${p.name}` }))}
						placeholder="a place"
					/>
				</label>
				{#each at?.hands ?? [] as h (h)}
					<Button
						color="alternative"
						onclick={() => bench.do({ do: 'hands', hands: h, socket: place })}>{HANDS[h]}</Button
					>
				{/each}
			</div>
		{/if}
	</div>
</details>
