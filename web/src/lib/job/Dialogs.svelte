<script lang="ts">
	// What is asked in a dialog while one fits.
	import Later from '$lib/ui/Later.svelte';
	import { useDesk } from './desk.svelte';

	const desk = useDesk();
	const planner = desk.planner;
</script>

<Later
	bind:open={() => desk.dialog === 'add', (yes) => desk.ask('add', yes)}
	load={() => import('./AddPart.svelte')}
	also={{ which: desk.shown }}
/>
<Later
	bind:open={() => desk.correcting !== undefined, (yes) => yes || (desk.correcting = undefined)}
	load={() => import('./EditPiece.svelte')}
	also={{ item: desk.correcting }}
/>
<Later
	bind:open={() => desk.dialog === 'shop', (yes) => desk.ask('shop', yes)}
	load={() => import('./Shop.svelte')}
	also={{ planner }}
/>
<Later
	bind:open={() => desk.dialog === 'wish', (yes) => desk.ask('wish', yes)}
	load={() => import('./EditWish.svelte')}
/>
<Later
	bind:open={() => desk.dialog === 'stage', (yes) => desk.ask('stage', yes)}
	load={() => import('./AddStage.svelte')}
/>
