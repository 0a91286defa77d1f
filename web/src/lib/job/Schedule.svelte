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
	<Quiet class="max-w-60 truncate text-soft max-sm:order-2" onclick={() => (open = true)}
		>{now || 'Due, and where'}</Quiet
	>
{/if}
<Later bind:open load={() => import('./EditSchedule.svelte')} />
