<script lang="ts">
	import { invalidateAll } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { page } from '$app/state';
	import { Button } from 'flowbite-svelte';
	import Mark from '$lib/ui/Mark.svelte';
</script>

<svelte:head><title>{page.error?.detail ?? 'Not found'} · Deep Bay</title></svelte:head>
<section class="mx-auto grid max-w-xl gap-4 py-16">
	<h1 class="flex items-center gap-3">
		<Mark grade="stops" size={28} />
		{page.status === 404 ? 'Nothing of that name is here' : 'This could not be shown'}
	</h1>
	<p>{page.error?.message}</p>
	<div class="flex gap-3">
		<Button onclick={() => invalidateAll()}>Try again</Button>
		<Button color="alternative" href={resolve('/')}>To the bench</Button>
	</div>
</section>
