<script lang="ts">
	import Closing from '$lib/job/Closing.svelte';
	import HandPage from '$lib/job/HandPage.svelte';
	import { useSession } from '$lib/job/session.svelte';

	const get = useSession();
	const session = $derived(get());
</script>

<svelte:head><title>Hand over: {session.job.title} · Deep Bay</title></svelte:head>

<div class="grid gap-8 lg:grid-cols-[1fr_18rem] print:block">
	<HandPage />
	<Closing />
</div>
