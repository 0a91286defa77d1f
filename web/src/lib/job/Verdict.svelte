<script lang="ts">
	// How the job stands, why, and what to do next: at one place on every screen of a job.
	import { goto } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { page } from '$app/state';
	import { Button } from 'flowbite-svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { SCREENS } from './screens';
	import { useSession } from './session.svelte';

	const get = useSession();
	const session = $derived(get());
	const status = $derived(session.view.status);
	const onNext = $derived(page.route.id === SCREENS[status.go].route);
</script>

<div
	class="no-print sticky top-0 z-30 mb-2 flex min-h-14 flex-wrap items-center gap-x-3 gap-y-1 border-y border-line bg-paper py-1"
	data-testid="verdict"
>
	<Mark grade={status.verdict.grade} size={26} />
	<p class="line-clamp-2 min-w-0 flex-1 leading-tight">
		<strong class="text-lg">{status.verdict.says}</strong>{#if status.verdict.why}<span
				class="text-soft">: {status.verdict.why}</span
			>{/if}
	</p>
	{#if onNext}
		<p class="max-w-72 shrink-0 text-right leading-tight max-sm:sr-only">
			<span class="text-soft">Next:</span> <strong>{status.next}</strong>
		</p>
	{:else}
		<Button
			class="shrink-0 max-sm:w-full"
			onclick={() => goto(resolve(SCREENS[status.go].route, { id: session.job.id }))}
			>{status.next}</Button
		>
	{/if}
</div>
