<script lang="ts">
	import { useSession } from '$lib/job/session.svelte';
	import StepView from '$lib/step/StepView.svelte';

	const get = useSession();
	const session = $derived(get());
</script>

<svelte:head><title>At the bench: {session.job.title} · Deep Bay</title></svelte:head>

<StepView />
