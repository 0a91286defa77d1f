<script lang="ts">
	import { Button, Checkbox, Select } from 'flowbite-svelte';
	import { tick } from 'svelte';
	import type { Finding as Judgement, Item } from '$lib/api/types.gen';
	import Chart from '$lib/chart/Chart.svelte';
	import After from '$lib/job/After.svelte';
	import AddPart from '$lib/job/AddPart.svelte';
	import EditPiece from '$lib/job/EditPiece.svelte';
	import EditWish from '$lib/job/EditWish.svelte';
	import Finding from '$lib/job/Finding.svelte';
	import { Hand } from '$lib/job/hand.svelte';
	import LookedPanel from '$lib/job/LookedPanel.svelte';
	import Offers from '$lib/job/Offers.svelte';
	import NewerSheet from '$lib/job/NewerSheet.svelte';
	import MemoryPanel from '$lib/job/MemoryPanel.svelte';
	import { AFTERWARDS, ALLOWED, Planner, type Role } from '$lib/job/planner.svelte';
	import PlanPanel from '$lib/job/PlanPanel.svelte';
	import Shop from '$lib/job/Shop.svelte';
	import WhyNot from '$lib/job/WhyNot.svelte';
	import Reasons from '$lib/job/Reasons.svelte';
	import Stages from '$lib/job/Stages.svelte';
	import { useSession, type State } from '$lib/job/session.svelte';
	import { command, shortcut } from '$lib/ui/commands.svelte';

	const get = useSession();
	const session = $derived(get());
	let shown = $state<State>('planned');
	let chosen = $state<string>();
	let adding = $state(false);
	let correcting = $state<string>();
	let shopping = $state(false);
	let wishing = $state(false);
	const hand = new Hand(
		() => session,
		() => shown,
		(item, socket) =>
			shown === 'planned' && planner.advice ? planner.pin(item, socket) : undefined
	);
	const planner = new Planner(() => session);

	const sheet = $derived(session.job.sheet);
	const resolved = $derived(session.view[shown]);
	const mat = $derived(session.onMat(shown).filter((x) => !session.partOf(x.id)?.fitting));
	/** Leads, brackets and screws go into no socket: they are at hand or not. */
	const atHand = $derived(session.onMat(shown).filter((x) => session.partOf(x.id)?.fitting));
	const here = $derived(chosen ? session.socket(shown, chosen) : undefined);
	const socket = $derived([...sheet.sockets, ...resolved.carried].find((k) => k.id === chosen));
	const bay = $derived(here?.item ? resolved.bays.find((b) => b.item === here.item) : undefined);
	/** It lies in a bay, or would if one were free. */
	const inBay = $derived(
		!!bay ||
			(!!session.partOf(here?.item)?.drive && (socket?.kind === 'sata' || socket?.kind === 'u2'))
	);
	const name = (item: string | undefined) => session.partOf(item)?.name;
	const order = { stops: 0, warns: 1, notes: 2 };
	const findings = $derived(
		[...resolved.findings].sort((a, b) => order[a.severity] - order[b.severity])
	);
	const count = (s: keyof typeof order) => findings.filter((f) => f.severity === s).length;

	async function onsocket(id: string) {
		if (hand.swallowClick()) return;
		if (hand.item) {
			if (await hand.place(id)) chosen = id;
			return;
		}
		chosen = chosen === id ? undefined : id;
	}

	/** It lies in the plan of a later stage. */
	const backLater = (item: string) =>
		session.job.later?.some((l) => l.planned.placements.some((p) => p.item === item)) ?? false;

	function keep(item: string) {
		const now = session.job.wish?.keep ?? [];
		const next = now.includes(item) ? now.filter((x) => x !== item) : [...now, item];
		return session.change({ do: 'wish', wish: { ...session.job.wish, keep: next } });
	}

	/** Out in this stage, back in the next, which is made where there is none. */
	function aside(item: string) {
		const what = name(item) ?? item;
		return session.change({
			do: 'aside',
			item,
			value: `without ${what}`.slice(0, 120),
			text: `${what} back in`.slice(0, 120)
		});
	}

	/** What a piece is for changes what is best, so a plan that was asked for is asked for anew. */
	async function serve(item: string, value: string) {
		if ((await session.change({ do: 'role', item, value })) && planner.advice) await planner.find();
	}

	function toggle(item: string) {
		if (hand.swallowClick()) return;
		if (hand.item === item) hand.putDown();
		else void hand.pickUp(item);
	}

	$effect(() => command('put down', () => hand.putDown()));
	$effect(() =>
		command('pick up', async () => {
			if (mat.length === 0) return;
			const i = mat.findIndex((x) => x.id === hand.item);
			await hand.pickUp(mat[(i + 1) % mat.length]!.id);
			await tick();
			document.querySelector<HTMLElement>('[data-testid=chart] button[tabindex="0"]')?.focus();
		})
	);
	$effect(() =>
		command('take out', () => {
			if (here?.item && !session.closed) void hand.takeOut(here.item);
		})
	);
	$effect(() => () => hand.putDown());
</script>

<svelte:head><title>Fit: {session.job.title} · Deep Bay</title></svelte:head>

{#snippet correct(item: Item)}
	<button
		class="size-14 rounded-sm border border-line hover:bg-water-1"
		aria-label="Correct {name(item.id)} {item.serial}"
		disabled={session.closed}
		onclick={() => (correcting = item.id)}
	>
		<svg viewBox="0 0 20 20" class="mx-auto size-5 fill-none stroke-current stroke-2"
			><path d="M4 16l1-4L14 3l3 3-9 9zM12 5l3 3" /></svg
		>
	</button>
{/snippet}

{#snippet remove(item: Item)}
	<button
		class="size-14 rounded-sm border border-line hover:bg-overtint"
		aria-label="Remove {name(item.id)} {item.serial} from the job"
		disabled={session.closed}
		onclick={() => session.change({ do: 'remove', item: item.id })}
	>
		<svg viewBox="0 0 20 20" class="mx-auto size-5 fill-none stroke-current stroke-2"
			><path d="M5 5l10 10M15 5L5 15" /></svg
		>
	</button>
{/snippet}

{#snippet list(some: readonly Judgement[])}
	<ul>
		{#each some as f (f.code + f.socket + f.item + f.says)}
			<Finding
				finding={f}
				oncure={session.closed
					? undefined
					: (c) => session.change({ do: 'moves', in: shown, moves: c.moves })}
				onaccept={session.closed || shown === 'found'
					? undefined
					: (yes) =>
							session.change({
								do: yes ? 'accept' : 'unaccept',
								finding: { code: f.code, socket: f.socket, item: f.item }
							})}
				onform={session.closed ? undefined : (item) => (correcting = item)}
			/>
		{/each}
	</ul>
{/snippet}

<div class="grid gap-6 lg:grid-cols-[1fr_21.5rem]">
	<section aria-label="Board">
		<Stages />
		<div class="flex flex-wrap items-center gap-3 pb-2">
			<div class="flex rounded-md border border-ink" role="group" aria-label="Which state is drawn">
				{#each [['planned', 'As planned'], ['found', session.view.at > 0 ? 'As it begins' : 'As found']] as const as [s, label] (s)}
					<button
						class={['min-h-11 px-4', shown === s ? 'bg-ink text-paper' : 'hover:bg-water-1']}
						aria-pressed={shown === s}
						onclick={() => {
							hand.putDown();
							shown = s;
						}}>{label}</button
					>
				{/each}
			</div>
			<p class="min-w-60 flex-1 text-soft" role="status">
				{#if hand.item}
					<strong class="text-over">{name(hand.item)}</strong> is picked up: choose a socket, or press
					Esc
				{:else}
					<strong class="text-ink">{session.view.status.next}.</strong>
					{#if session.job.wish?.text}Wish: “{session.job.wish.text}”{/if}
					{#if !session.closed}
						<button
							class="rounded px-1 underline decoration-dotted underline-offset-4 hover:bg-water-1"
							onclick={() => (wishing = true)}
							>{session.job.wish?.text ? 'change' : 'Write the wish'}</button
						>
					{/if}
				{/if}
			</p>
		</div>
		<Chart
			{sheet}
			{resolved}
			title="Board of the {sheet.name}, {shown === 'planned' ? 'as planned' : 'as found'}"
			{name}
			{chosen}
			offers={hand.item && hand.offers.length > 0 ? hand.offers : null}
			{onsocket}
			draggable={hand.draggable}
		/>
		<p class="py-2 text-soft">
			Ribbons: width is lanes, depth of tint is generation; the white rim is wiring that stays
			unused.
		</p>
	</section>

	<div class="grid content-start gap-5">
		{#if hand.item && !hand.ghost}
			<Offers
				what={name(hand.item) ?? ''}
				offers={hand.offers}
				onsocket={(id) => onsocket(id)}
				onleave={() => hand.putDown()}
			/>
		{/if}
		{#if session.view.blocks.length > 0 && count('stops') === 0 && session.view.order.length > 0}
			<section aria-labelledby="blocks-h" class="border-l-4 border-over bg-overtint px-3 py-2">
				<h2 id="blocks-h">To be answered first</h2>
				<ul class="grid gap-2">
					{#each session.view.blocks as b (b.says)}
						<li>
							{b.says}
							{#if b.moves?.length}
								<Button
									color="alternative"
									aria-label="Set it: {b.says}"
									onclick={() => session.change({ do: 'moves', moves: b.moves })}>Set it</Button
								>
							{:else if b.start}
								<span class="text-soft">Say it under “Afterwards”.</span>
							{/if}
						</li>
					{/each}
				</ul>
			</section>
		{/if}
		{#if count('stops') > 0}
			<section aria-labelledby="stops-h" class="border-l-4 border-over bg-overtint px-3 pt-2">
				<h2 id="stops-h">The plan is stopped</h2>
				{@render list(findings.filter((f) => f.severity === 'stops'))}
			</section>
		{/if}
		<section aria-labelledby="mat-h" data-mat>
			<div class="flex items-center justify-between">
				<h2 id="mat-h">{shown === 'planned' ? 'On the mat' : 'Not in the machine'}</h2>
				<Button
					color="alternative"
					disabled={session.closed}
					onclick={() => (adding = true)}
					{@attach shortcut('add')}>Add a part</Button
				>
			</div>
			{#if mat.length === 0}
				<p class="py-1 text-soft">
					{session.job.items.length === 0
						? 'No parts yet: add what is in the machine, then what is to be fitted.'
						: 'Everything has its place.'}
				</p>
			{/if}
			<ul class="mt-1 grid gap-1">
				{#each mat as item (item.id)}
					<li class="grid grid-cols-[minmax(0,1fr)_auto_auto] gap-1">
						<button
							class={[
								'min-h-14 grow rounded-sm border px-3 py-1 text-left leading-tight',
								hand.item === item.id
									? 'border-over bg-overtint'
									: 'border-line bg-land hover:border-ink'
							]}
							aria-pressed={hand.item === item.id}
							disabled={session.closed}
							data-item={item.id}
							onclick={() => toggle(item.id)}
							{@attach hand.draggable(item.id)}
						>
							<strong>{name(item.id)}</strong>
							<span class="text-soft">{item.serial}</span>
							{#if backLater(item.id)}<span class="text-over">· comes back later</span>
							{:else if item.new}<span class="text-over">· to fit</span>{/if}
						</button>
						{@render correct(item)}
						{@render remove(item)}
					</li>
				{/each}
				{#each atHand as item (item.id)}
					<li class="grid grid-cols-[minmax(0,1fr)_auto_auto] gap-1">
						<p class="min-h-14 grow border-l-4 border-line px-3 py-1 leading-tight">
							<strong>{name(item.id)}</strong> <span class="text-soft">at hand</span>
						</p>
						{@render correct(item)}
						{@render remove(item)}
					</li>
				{/each}
			</ul>
		</section>

		{#if shown === 'planned'}<PlanPanel
				{planner}
				onshop={() => (shopping = true)}
				onwish={() => (wishing = true)}
			/>{/if}

		{#if socket && here}
			<section aria-labelledby="socket-h" class="border-l-4 border-ink pl-3" data-testid="socket">
				<h2 id="socket-h">{socket.id}{socket.where ? `, ${socket.where}` : ''}</h2>
				{#if here.item}<p>
						<strong>{name(here.item)}</strong>
						{session.item(here.item)?.serial}
					</p>{/if}
				<p>
					{#if here.state === 'live' && here.link}{here.link.text}, {here.link
							.rate}{:else}{here.says}{/if}
				</p>
				{#each resolved.flows.filter((f) => f.socket === here.socket) as f (f.socket)}
					<p class="text-soft">to plan with: {f.says}</p>
				{/each}
				{#if here.item && inBay && resolved.bays.length > 1}
					<div class="my-2 grid grid-cols-[auto_1fr] items-center gap-2">
						<label for="bay">Lies in</label>
						<Select
							id="bay"
							value={bay?.told ? bay.bay : ''}
							placeholder=""
							disabled={session.closed}
							items={[
								{
									value: '',
									name: bay && !bay.told ? `${bay.name}, where it fits` : 'where it fits'
								},
								...resolved.bays.map((b) => ({
									value: b.bay,
									name: b.item && b.item !== here.item ? `${b.name}: ${name(b.item)}` : b.name
								}))
							]}
							onchange={(e) =>
								session.change({
									do: 'bay',
									in: shown,
									item: here.item,
									value: e.currentTarget.value
								})}
						/>
						<p class="col-span-2 text-soft">{bay?.says ?? 'no bay is free for it'}</p>
					</div>
				{/if}
				{#if here.item && !session.closed}
					<div class="my-2 flex flex-wrap gap-2">
						<Button color="alternative" onclick={() => here.item && hand.pickUp(here.item)}
							>Move it</Button
						>
						<Button color="alternative" onclick={() => here.item && hand.takeOut(here.item)}
							>Take it out</Button
						>
						{#if shown === 'planned'}
							<Button
								color="alternative"
								aria-label="Out for now: {name(here.item)} comes back in a later stage"
								onclick={() => here.item && aside(here.item)}>Out for now</Button
							>
						{/if}
						<Button color="alternative" onclick={() => (correcting = here.item)}>Correct it</Button>
						{#if shown === 'planned' && planner.advice}
							<Button
								color="alternative"
								onclick={() => here.item && planner.ban(here.item, here.socket)}>Not here</Button
							>
						{/if}
					</div>
				{/if}
				{#if here.item && !session.item(here.item)?.new}
					<Checkbox
						checked={session.job.wish?.keep?.includes(here.item) ?? false}
						disabled={session.closed}
						onchange={() => here.item && keep(here.item)}>It must stay in the machine</Checkbox
					>
				{/if}
				{#if here.item && !session.closed}
					<div class="my-2 grid grid-cols-[auto_1fr] items-center gap-2">
						<label for="after">Afterwards it is for</label>
						<Select
							id="after"
							value={session.item(here.item)?.role ?? ''}
							placeholder=""
							items={AFTERWARDS.map((r) => ({ ...r }))}
							onchange={(e) => here.item && serve(here.item, e.currentTarget.value)}
						/>
					</div>
				{/if}
				{#if here.item && shown === 'planned' && planner.advice && !session.item(here.item)?.new}
					<div class="my-2 grid grid-cols-[auto_1fr] items-center gap-2">
						<label for="role">When planning it</label>
						<Select
							id="role"
							value={planner.roles[here.item] ?? ''}
							placeholder=""
							disabled={session.closed}
							items={ALLOWED.map((r) => ({ ...r }))}
							onchange={(e) =>
								here.item && planner.allow(here.item, e.currentTarget.value as Role | '')}
						/>
					</div>
				{/if}
				{#if shown === 'planned' && planner.advice && !here.item && !socket.id.includes('/')}
					<Checkbox
						checked={planner.ports.includes(socket.id)}
						disabled={session.closed}
						onchange={(e) => planner.keepPort(socket.id, e.currentTarget.checked)}
						>Keep it on and free for later</Checkbox
					>
				{/if}
				{#if shown === 'planned' && planner.advice?.best}
					{#key socket.id}<WhyNot {planner} socket={socket.id} />{/key}
				{/if}
				<Reasons because={here.because} />
			</section>
		{/if}

		<section aria-labelledby="findings-h">
			<h2 id="findings-h">Findings</h2>
			<p class="text-soft" data-testid="tally">
				{resolved.tally}
			</p>
			{#if findings.length === 0}
				<p class="py-1">Nothing stands against this.</p>
			{/if}
			{@render list(findings.filter((f) => f.severity !== 'stops' && !f.quiet))}
			{#if findings.some((f) => f.quiet)}
				<details>
					<summary class="min-h-11 cursor-pointer py-2 text-soft"
						>{findings.filter((f) => f.quiet).length} as it came, about what nobody touches</summary
					>
					{@render list(findings.filter((f) => f.quiet))}
				</details>
			{/if}
		</section>

		<After />

		<NewerSheet />

		<LookedPanel />

		<MemoryPanel
			memory={resolved.memory}
			variants={shown === 'planned' ? session.view.variants : []}
			onuse={session.closed ? undefined : (v) => session.change({ do: 'moves', moves: v.moves })}
		/>

		{#if sheet.bays?.length}
			<section aria-labelledby="bays-h">
				<h2 id="bays-h">Bays</h2>
				<ul>
					{#each resolved.bays as b (b.bay)}
						<li>
							<strong>{b.bay}</strong>
							{#if b.item}<strong class="text-over">{name(b.item)}</strong>,{/if}
							{b.says}
						</li>
					{/each}
				</ul>
			</section>
		{/if}

		{#if resolved.lanes.length > 0}
			<section aria-labelledby="lanes-h">
				<h2 id="lanes-h">Lanes</h2>
				<ul>
					{#each resolved.lanes as l (l.group)}
						<li><strong>{l.group}</strong> {l.says}</li>
					{/each}
				</ul>
			</section>
		{/if}

		{#if sheet.settings.length + (sheet.processors?.length ?? 0) > 0}
			<section aria-labelledby="settings-h">
				<h2 id="settings-h">Settings</h2>
				<ul class="grid gap-2">
					{#if sheet.processors?.length}
						<li class="grid grid-cols-[1fr_9rem] items-center gap-2">
							<label for="processor">Processor fitted</label>
							<Select
								id="processor"
								value={session.job.processor ?? ''}
								placeholder=""
								disabled={session.closed}
								items={[
									{ value: '', name: 'not known' },
									...sheet.processors.map((p) => ({ value: p.id, name: p.name }))
								]}
								onchange={(e) => session.change({ do: 'processor', value: e.currentTarget.value })}
							/>
						</li>
					{/if}
					{#each sheet.settings as st (st.id)}
						{@const value =
							session.job[shown].settings.find((c) => c.setting === st.id)?.value ??
							st.default ??
							''}
						<li class="grid grid-cols-[1fr_9rem] items-center gap-2">
							<label for="set-{st.id}">{st.name}</label>
							<Select
								id="set-{st.id}"
								{value}
								placeholder=""
								disabled={session.closed}
								items={[
									...(value === '' ? [{ value: '', name: 'not known' }] : []),
									...st.options.map((o) => ({ value: o.value, name: o.name }))
								]}
								onchange={(e) =>
									session.change({
										do: 'set',
										in: shown,
										setting: st.id,
										value: e.currentTarget.value
									})}
							/>
						</li>
					{/each}
				</ul>
			</section>
		{/if}
	</div>
</div>

{#if hand.ghost}
	<div
		class="pointer-events-none fixed z-50 rounded-sm border border-over bg-overtint px-3 py-2 text-ink shadow"
		style:left="{hand.ghost.x + 10}px"
		style:top="{hand.ghost.y + 10}px"
	>
		{name(hand.item)}
	</div>
{/if}

<AddPart bind:open={adding} which={shown} />
<EditPiece bind:item={correcting} />
<Shop bind:open={shopping} {planner} />
<EditWish bind:open={wishing} />
