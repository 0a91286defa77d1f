<script lang="ts">
	// The pages of the logbook.
	import { resolve } from '$app/paths';
	import { page } from '$app/state';

	const PAGES = [
		['/logbook', 'Lines'],
		['/logbook/figures', 'Figures']
	] as const;
</script>

<nav aria-label="Logbook" class="no-print flex">
	{#each PAGES as [to, name] (to)}
		{@const here = page.route.id === to}
		<a
			href={resolve(to)}
			aria-current={here ? 'page' : undefined}
			class={[
				'flex min-h-11 items-center border-b-4 px-3 hover:bg-water-1',
				here ? 'border-ink font-semibold' : 'border-transparent'
			]}>{name}</a
		>
	{/each}
</nav>
