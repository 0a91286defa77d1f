<script lang="ts">
	// The chosen socket: what it is and does, why, and what can be done with what lies in it.
	import { Button, Checkbox, Select } from 'flowbite-svelte';
	import type { Socket, SocketState } from '$lib/api/types.gen';
	import { useDesk } from './desk.svelte';
	import { AFTERWARDS, ALLOWED, type Role } from './planner.svelte';
	import Reasons from '$lib/ui/Reasons.svelte';
	import WhyNot from './WhyNot.svelte';

	interface Props {
		socket: Socket;
		here: SocketState;
	}
	let { socket, here }: Props = $props();
	const desk = useDesk();
	const session = $derived(desk.session);
	const planner = desk.planner;
	const bays = $derived(desk.resolved.bays);
	const planned = $derived(desk.shown === 'planned');
	const piece = $derived(session.item(here.item));
	const bay = $derived(piece ? bays.find((b) => b.item === piece.id) : undefined);

	function keep(item: string) {
		const now = session.job.wish?.keep ?? [];
		const next = now.includes(item) ? now.filter((x) => x !== item) : [...now, item];
		return desk.change({ do: 'wish', wish: { ...session.job.wish, keep: next } });
	}

	/** Out in this stage, back in the next, which is made where there is none. */
	function aside(item: string) {
		const what = desk.name(item) ?? item;
		return desk.change({
			do: 'aside',
			item,
			value: `without ${what}`.slice(0, 120),
			text: `${what} back in`.slice(0, 120)
		});
	}

	/** What a piece is for changes what is best, so a plan that was asked for is asked for anew. */
	async function serve(item: string, value: string) {
		if ((await desk.change({ do: 'role', item, value })) && planner.advice) await planner.find();
	}
</script>

<section aria-labelledby="socket-h" class="border-l-4 border-ink pl-3" data-testid="socket">
	<div class="flex items-start justify-between gap-2">
		<h2 id="socket-h">{socket.id}{socket.where ? `, ${socket.where}` : ''}</h2>
		<button
			class="grid size-11 shrink-0 place-items-center rounded-md hover:bg-water-1"
			aria-label="Close {socket.id}"
			onclick={() => (desk.chosen = undefined)}
		>
			<svg viewBox="0 0 20 20" class="size-5 fill-none stroke-current stroke-2"
				><path d="M5 5l10 10M15 5L5 15" /></svg
			>
		</button>
	</div>
	{#if here.item}<p><strong>{desk.name(here.item)}</strong> {piece?.serial}</p>{/if}
	<p>
		{#if here.state === 'live' && here.link}{here.link.text}, {here.link
				.rate}{:else}{here.says}{/if}
	</p>
	{#each desk.resolved.flows.filter((f) => f.socket === here.socket) as f (f.socket)}
		<p class="text-soft">to plan with: {f.says}</p>
	{/each}
	{#if piece && here.inBay && bays.length > 1}
		<div class="my-2 grid grid-cols-[auto_1fr] items-center gap-2">
			<label for="bay">Lies in</label>
			<Select
				id="bay"
				value={bay?.told ? bay.bay : ''}
				placeholder=""
				disabled={session.closed}
				items={[
					{ value: '', name: bay && !bay.told ? `${bay.name}, where it fits` : 'where it fits' },
					...bays.map((b) => ({
						value: b.bay,
						name: b.item && b.item !== piece.id ? `${b.name}: ${desk.name(b.item)}` : b.name
					}))
				]}
				onchange={(e) =>
					desk.change({ do: 'bay', in: desk.shown, item: piece.id, value: e.currentTarget.value })}
			/>
			<p class="col-span-2 text-soft">{bay?.says ?? 'no bay is free for it'}</p>
		</div>
	{/if}
	{#if piece && !session.closed}
		<div class="my-2 flex flex-wrap gap-2">
			<Button color="alternative" onclick={() => desk.hand.pickUp(piece.id)}>Move it</Button>
			<Button color="alternative" onclick={() => desk.hand.takeOut(piece.id)}>Take it out</Button>
			{#if planned}
				<Button
					color="alternative"
					aria-label="Out for now: {desk.name(piece.id)} comes back in a later stage"
					onclick={() => aside(piece.id)}>Out for now</Button
				>
			{/if}
			<Button color="alternative" onclick={() => (desk.correcting = piece.id)}>Correct it</Button>
			{#if planned && planner.advice}
				<Button color="alternative" onclick={() => planner.ban(piece.id, here.socket)}
					>Not here</Button
				>
			{/if}
		</div>
	{/if}
	{#if piece && !piece.new}
		<Checkbox
			checked={session.job.wish?.keep?.includes(piece.id) ?? false}
			disabled={session.closed}
			onchange={() => keep(piece.id)}>It must stay in the machine</Checkbox
		>
	{/if}
	{#if piece && !session.closed}
		<div class="my-2 grid grid-cols-[auto_1fr] items-center gap-2">
			<label for="after">Afterwards it is for</label>
			<Select
				id="after"
				value={piece.role ?? ''}
				placeholder=""
				items={AFTERWARDS.map((r) => ({ ...r }))}
				onchange={(e) => serve(piece.id, e.currentTarget.value)}
			/>
		</div>
	{/if}
	{#if planned && planner.advice}
		{#if piece && !piece.new}
			<div class="my-2 grid grid-cols-[auto_1fr] items-center gap-2">
				<label for="role">When planning it</label>
				<Select
					id="role"
					value={planner.roles[piece.id] ?? ''}
					placeholder=""
					disabled={session.closed}
					items={ALLOWED.map((r) => ({ ...r }))}
					onchange={(e) => planner.allow(piece.id, e.currentTarget.value as Role | '')}
				/>
			</div>
		{:else if !piece && !socket.id.includes('/')}
			<Checkbox
				checked={planner.ports.includes(socket.id)}
				disabled={session.closed}
				onchange={(e) => planner.keepPort(socket.id, e.currentTarget.checked)}
				>Keep it on and free for later</Checkbox
			>
		{/if}
		{#if planner.advice.best}
			{#key socket.id}<WhyNot {planner} socket={socket.id} />{/key}
		{/if}
	{/if}
	<Reasons because={here.because} />
</section>
