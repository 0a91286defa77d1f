<script lang="ts">
	// The best plan, why it is the best, and the real alternatives side by side.
	import { Button, Checkbox, Select } from 'flowbite-svelte';
	import type { Placement, Way } from '$lib/api/types.gen';
	import Thumb from '$lib/chart/Thumb.svelte';
	import Quiet from '$lib/ui/Quiet.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { hint } from '$lib/ui/commands.svelte';
	import LookUp from './LookUp.svelte';
	import { factKey } from './missing';
	import { useDesk } from './desk.svelte';
	import { CRITERIA } from './planner.svelte';
	import Searching from './Searching.svelte';

	const desk = useDesk();
	const session = $derived(desk.session);
	const planner = desk.planner;
	const uid = $props.id();
	const advice = $derived(planner.advice);
	const GRADES = {
		optimal: 'good',
		sure: 'good',
		depends: 'unknown',
		impossible: 'stops',
		'gave up': 'unknown'
	} as const;
	const name = (item: string) => session.partOf(item)?.name ?? item;

	/** The sockets in which a way differs from the best, or from the machine as it came. */
	function differing(way: Way): readonly string[] {
		const at = (placements: readonly Placement[], item: string) =>
			placements.find((p) => p.item === item)?.socket;
		return session.job.items.flatMap(({ id }) => {
			const there = at(way.placements, id);
			const before = advice?.best?.placements ?? session.job.found.placements;
			return there && there !== at(before, id) ? [there.split('/')[0]!] : [];
		});
	}
</script>

<section aria-label="Best plan" data-testid="plan">
	{#if !session.closed}
		<Quiet onclick={() => (desk.dialog = 'shop')} {@attach hint('choose')}
			>Choose parts from the shelf</Quiet
		>
	{/if}
	{#if planner.progress}<Searching progress={planner.progress} onstop={() => planner.stop()} />{/if}
	{#if planner.fault}
		<p role="alert" class="mt-1 text-over">{planner.fault}</p>
	{/if}
	{#if advice}
		<div class="mt-1 grid grid-cols-[auto_1fr] items-center gap-2">
			<label for="{uid}first">What counts most</label>
			<Select
				id="{uid}first"
				value={planner.first}
				placeholder=""
				disabled={session.closed}
				items={[...CRITERIA]}
				onchange={(e) => {
					planner.first = e.currentTarget.value;
					void planner.find();
				}}
			/>
		</div>
	{/if}
	{#if advice}
		<Checkbox
			class="mt-2"
			checked={planner.useShelf}
			disabled={session.closed}
			onchange={(e) => {
				planner.useShelf = e.currentTarget.checked;
				void planner.find();
			}}>Carriers, adapters and boxes of the shelf may be used</Checkbox
		>
	{/if}
	<div aria-live="polite">
		{#if advice}
			<p class="mt-1 flex items-start gap-2">
				<Mark grade={GRADES[advice.end]} />
				<span>{advice.proof}.</span>
			</p>
			{#if advice.best}
				<ul class="mt-1">
					{#each advice.best.says as s (s)}<li>{s}</li>{/each}
				</ul>
				{#if !planner.isNow(advice.best)}
					<Button
						color="alternative"
						class="mt-1"
						onclick={() => advice.best && planner.take(advice.best)}>Take the best plan</Button
					>
				{/if}
			{/if}
			{#if advice.provided}
				<div class="mt-2 border-2 border-line p-2" data-testid="provided">
					<h3>{advice.best ? 'Better' : 'Possible'}, provided that it turns out well</h3>
					<Thumb sheet={session.job.sheet} marked={differing(advice.provided.way)} />
					<p class="mt-1">Look up, the least trouble first:</p>
					<ol class="list-decimal pl-5">
						{#each advice.provided.look as l (factKey(l))}<li class="py-0.5">
								<LookUp missing={l} onanswered={() => planner.find()} />
							</li>{/each}
					</ol>
					<ul class="mt-1 leading-snug">
						{#each advice.provided.way.differs as d, i (i)}<li>{d}</li>{/each}
						{#each advice.provided.way.says as s, i (i)}<li class="text-soft">{s}</li>{/each}
					</ul>
					<Button
						color="alternative"
						class="mt-1"
						disabled={session.closed || planner.isNow(advice.provided.way)}
						onclick={() => advice.provided && planner.take(advice.provided.way)}
						>{planner.isNow(advice.provided.way) ? 'It is laid out' : 'Lay it out to look'}</Button
					>
				</div>
			{/if}
			{#if advice.clash.length > 0}
				<p class="mt-1">These cannot all be had:</p>
				<ul class="list-disc pl-5">
					{#each advice.clash as c, i (i)}<li>{c}</li>{/each}
				</ul>
			{/if}
			{#if advice.help.length > 0}
				<p class="mt-1">What would help:</p>
				<ul class="grid gap-1.5">
					{#each advice.help as help, i (i)}
						<li class="flex items-center gap-2">
							<span class="grow">{help.says}</span>
							{#if help.do && !session.closed}
								<Button
									color="alternative"
									class="px-3"
									aria-label="Do it: {help.says}"
									onclick={() =>
										help.do === 'change wish' ? (desk.dialog = 'wish') : void planner.giveUp(help)}
									>{help.do === 'change wish' ? 'Wish' : 'Do it'}</Button
								>
							{/if}
						</li>
					{/each}
				</ul>
			{/if}
		{/if}
	</div>
	{#if advice && planner.pins.length + planner.bans.length > 0}
		<ul class="mt-2 grid gap-1" aria-label="Pins and bans">
			{#each planner.pins as p (p.item)}
				<li class="flex items-center gap-2">
					<span class="grow">{name(p.item)} is pinned to <strong>{p.socket}</strong></span>
					<button
						class="min-h-11 rounded border border-line px-3 hover:bg-water-1"
						onclick={() => planner.unpin(p.item)}>Let go</button
					>
				</li>
			{/each}
			{#each planner.bans as b (b)}
				<li class="flex items-center gap-2">
					<span class="grow">{name(b.item)} does not go into <strong>{b.socket}</strong></span>
					<button
						class="min-h-11 rounded border border-line px-3 hover:bg-water-1"
						onclick={() => planner.unban(b)}>Allow it</button
					>
				</li>
			{/each}
		</ul>
	{/if}
	{#if advice && advice.alternatives.length > 0}
		<h3 class="mt-2">Alternatives</h3>
		<ul class="mt-1 grid grid-cols-2 gap-2">
			{#each advice.alternatives as way, i (i)}
				<li class={['border p-2', planner.isNow(way) ? 'border-2 border-ink' : 'border-line']}>
					<Thumb sheet={session.job.sheet} marked={differing(way)} />
					<ul class="mt-1 leading-snug">
						{#each way.differs as d, n (n)}<li>{d}</li>{/each}
						{#each way.says as s (s)}<li class="text-soft">{s}</li>{/each}
					</ul>
					<Button
						color="alternative"
						class="mt-1 w-full px-1"
						disabled={session.closed || planner.isNow(way)}
						onclick={() => planner.take(way)}
						>{planner.isNow(way)
							? `Alternative ${i + 1} is taken`
							: `Take alternative ${i + 1}`}</Button
					>
				</li>
			{/each}
		</ul>
	{/if}
	{#if advice}
		<p class="mt-2 text-soft">
			A part put somewhere by hand is pinned there, and the rest is planned around it.
			<Quiet onclick={() => planner.leave()}>Plan by hand</Quiet>
		</p>
	{/if}
</section>
