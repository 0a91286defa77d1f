<script lang="ts">
	// What hands work with: what is held and where it goes, the chosen socket, the mat. Beside the
	// chart where there is room, at the thumb where there is none.
	import Fetched from '$lib/ui/Fetched.svelte';
	import Blocks from './Blocks.svelte';
	import { useDesk } from './desk.svelte';
	import Mat from './Mat.svelte';

	const desk = useDesk();
	const hand = desk.hand;
	/** On its way by hand: what lies under the dock on a small screen must be free. */
	const dragged = $derived(hand.ghost !== null);
	const held = $derived(hand.item !== undefined && !dragged);
	const busy = $derived(held || desk.here !== undefined || desk.changed.length > 0);
	const mat = $derived(desk.session.onMat(desk.shown).length);
	/** On a small screen: the mat is up. On a phone it would hide half the work. */
	let up = $state(window.innerWidth >= 640);
</script>

<div
	class="dock grid content-start gap-3 max-lg:fixed max-lg:inset-x-0 max-lg:bottom-0 max-lg:z-30 max-lg:border-t-2 max-lg:border-ink max-lg:bg-paper max-lg:px-4 max-lg:py-1 max-sm:bottom-[52px]"
	data-testid="dock"
	data-mat
>
	{#if dragged}<p class="py-2 lg:hidden">To the mat</p>{/if}
	{#if !dragged && !busy}
		<button
			class="flex min-h-11 items-center gap-2 lg:hidden"
			aria-expanded={up}
			onclick={() => (up = !up)}
		>
			<strong>{desk.shown === 'planned' ? 'On the mat' : 'Not in the machine'}</strong>
			<span>{mat}</span>
			<span class="grow"></span>
			<svg viewBox="0 0 20 20" class="size-5 fill-none stroke-current stroke-2" aria-hidden="true"
				><path d={up ? 'M4 7l6 6 6-6' : 'M4 13l6-6 6 6'} /></svg
			>
		</button>
	{/if}
	<div
		class={[
			'grid content-start gap-3 max-lg:max-h-[55dvh] max-lg:overflow-y-auto max-lg:pb-1 sm:max-lg:max-h-60',
			!up && !busy && 'max-lg:hidden',
			dragged && 'max-lg:h-0 max-lg:overflow-hidden' // not gone: a finger is on it
		]}
	>
		{#if held}
			<Fetched
				load={() => import('./Offers.svelte')}
				also={{
					what: desk.name(hand.item) ?? '',
					offers: hand.offers,
					onsocket: (id: string) => desk.press(id),
					onleave: () => hand.putDown()
				}}
			/>
		{:else}
			{#if desk.changed.length > 0}<Fetched load={() => import('./Changed.svelte')} />{/if}
			{#if desk.here}
				<Fetched
					load={() => import('./SocketPanel.svelte')}
					also={{ socket: desk.here.socket, here: desk.here.state }}
				/>
			{/if}
		{/if}
		<Blocks />
		<div class={[busy && 'max-lg:hidden']}><Mat /></div>
	</div>
</div>
