<script lang="ts">
	import { page } from '$app/state';
	import Closing from '$lib/job/Closing.svelte';
	import HandPage from '$lib/job/HandPage.svelte';
	import { useSession } from '$lib/job/session.svelte';
	import Fetched from '$lib/ui/Fetched.svelte';

	const get = useSession();
	const session = $derived(get());
	let owner = $state(page.url.searchParams.get('for') === 'owner');
	const PAGES = [
		[false, 'The shop’s sheet'],
		[true, 'The owner’s page']
	] as const;
</script>

<svelte:head><title>Hand over: {session.job.title} · Deep Bay</title></svelte:head>

<div class="no-print flex" role="group" aria-label="Which page">
	{#each PAGES as [is, name] (name)}
		<button
			aria-pressed={owner === is}
			class={[
				'min-h-11 border-b-4 px-3 hover:bg-water-1',
				owner === is ? 'border-ink font-semibold' : 'border-transparent'
			]}
			onclick={() => (owner = is)}>{name}</button
		>
	{/each}
</div>
<div class="grid gap-8 lg:grid-cols-[1fr_18rem] print:block">
	{#if owner}
		<div><Fetched load={() => import('$lib/job/OwnerPage.svelte')} /></div>
	{:else}
		<HandPage />
	{/if}
	<Closing />
</div>
