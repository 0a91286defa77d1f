<script lang="ts">
	// Where the machine stands, and when it is due.
	import Later from '$lib/ui/Later.svelte';
	import Quiet from '$lib/ui/Quiet.svelte';
	import { day } from '$lib/ui/text';
	import { useSession } from './session.svelte';

	const get = useSession();
	const session = $derived(get());
	let open = $state(false);
	const now = $derived(
		[session.job.due && `due ${day(session.job.due)}`, session.job.stands]
			.filter(Boolean)
			.join(' · ')
	);
</script>

{#if !session.closed}
	<Quiet class="max-w-60 truncate text-soft max-lg:hidden" onclick={() => (open = true)}
		>{now || 'Due, and where'}</Quiet
	>
	<button
		class="size-11 shrink-0 rounded-md border border-line hover:bg-water-1 lg:hidden"
		aria-label={now || 'Due, and where'}
		title={now}
		onclick={() => (open = true)}
	>
		<svg viewBox="0 0 20 20" class="mx-auto size-5 fill-none stroke-current stroke-2"
			><path d="M3 5h14v12H3zM3 9h14M7 2v5M13 2v5" /></svg
		>
	</button>
{/if}
<Later bind:open load={() => import('./EditSchedule.svelte')} />
