<script lang="ts">
	import { atStep } from '$lib/ui/here.svelte';
	import '../app.css';
	import { afterNavigate } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { navigating, page } from '$app/state';
	import { ThemeProvider } from 'flowbite-svelte';
	import type { Snippet } from 'svelte';
	import { theme as flowbite, warm } from '$lib/ui/flowbite';
	import { listen, shortcut } from '$lib/ui/commands.svelte';
	import { keepFocus } from '$lib/ui/focus';
	import Later from '$lib/ui/Later.svelte';
	import { theme } from '$lib/ui/theme.svelte';
	import Turn from '$lib/ui/Turn.svelte';
	import Toasts from '$lib/ui/Toasts.svelte';
	import { who } from '$lib/ui/who.svelte';

	let { children }: { children: Snippet } = $props();

	const ROOMS = [
		['/', 'Bench', 'bench'],
		['/sheets', 'Sheets', 'sheets'],
		['/shelf', 'Shelf', 'shelf'],
		['/logbook', 'Logbook', 'logbook'],
		['/rule', 'Slide rule', 'rule']
	] as const;
	let keysOpen = $state(false);
	let whoOpen = $state(false);
	let finding = $state(false);
	let main = $state<HTMLElement>();

	$effect(() => listen(() => (finding = true)));
	$effect(keepFocus);
	$effect(warm);
	afterNavigate(({ type, from, to }) => {
		// Another question to the same view leaves whoever types it where they are.
		if (type !== 'enter' && from?.url.pathname !== to?.url.pathname) main?.focus();
	});
</script>

<ThemeProvider theme={flowbite}>
	<!-- In turns: what begins the program, the frame, what stands in it. -->
	<Turn>
		<a
			href="#main"
			class="sr-only z-50 rounded bg-raised p-3 text-ink focus:not-sr-only focus:absolute focus:top-1 focus:left-1"
			>Skip to the work</a
		>
		<header class="no-print border-b border-line">
			<div class="mx-auto flex max-w-[1500px] items-center gap-x-3 px-4">
				<a href={resolve('/')} class="flex min-h-12 items-center gap-2 text-lg font-semibold">
					<svg viewBox="0 0 28 28" class="size-7" aria-hidden="true">
						<rect width="28" height="28" rx="5" class="fill-land" />
						<path d="M0 11c6-4 11 4 28-1v18H0z" class="fill-water-2" />
						<path d="M0 17.500c8-4 13 3 28-1V28H0z" class="fill-water-4" />
						<path d="M0 23.500c9-3 16 2 28-1V28H0z" class="fill-water-6" />
					</svg>
					<span class="whitespace-nowrap max-lg:sr-only">Deep Bay</span>
				</a>
				<!-- On a narrow screen the rooms are at the thumb. -->
				<nav
					aria-label="Rooms"
					class={[
						'flex max-sm:fixed max-sm:inset-x-0 max-sm:bottom-0 max-sm:z-40 max-sm:border-t max-sm:border-line max-sm:bg-paper',
						atStep() && 'max-sm:hidden'
					]}
				>
					{#each ROOMS as [to, label, k] (to)}
						{@const here = to === '/' ? page.url.pathname === to : page.url.pathname.startsWith(to)}
						<a
							href={resolve(to)}
							aria-current={here ? 'page' : undefined}
							class={[
								'flex min-h-12 items-center justify-center border-b-4 px-3 whitespace-nowrap hover:bg-water-1 max-sm:grow max-sm:border-t-4 max-sm:border-b-0 max-sm:px-1',
								here ? 'border-ink font-semibold' : 'border-transparent'
							]}
							{@attach shortcut(k)}>{label}</a
						>
					{/each}
				</nav>
				<span class="grow"></span>
				<button
					class="min-h-11 min-w-0 truncate rounded-md px-3 underline decoration-dotted underline-offset-4 hover:bg-water-1"
					onclick={() => (whoOpen = true)}
				>
					{#if who.name}<span class="max-sm:sr-only">At the bench: </span>{who.name}{:else}Who is at
						the bench?{/if}
				</button>
				<button
					class="min-h-11 shrink-0 rounded-md px-3 hover:bg-water-1"
					onclick={() => theme.toggle()}
				>
					{theme.night ? 'Day' : 'Night'}
					<span class="max-lg:sr-only">colours</span>
				</button>
				<button
					class="min-h-11 rounded-md px-3 hover:bg-water-1 max-sm:hidden"
					onclick={() => (keysOpen = true)}
					{@attach shortcut('keys')}>Keys</button
				>
			</div>
		</header>
		<div role="status" class="sr-only">{navigating.to ? 'Loading' : ''}</div>
		{#if navigating.to}<div
				class="fixed inset-x-0 top-0 z-50 h-1 bg-over"
				aria-hidden="true"
			></div>{/if}
		<main
			id="main"
			tabindex="-1"
			bind:this={main}
			class="mx-auto max-w-[1500px] px-4 outline-none max-sm:pb-16"
		>
			<Turn>{@render children()}</Turn>
		</main>
		<Turn>
			<Toasts />

			<Later bind:open={keysOpen} load={() => import('$lib/ui/KeysDialog.svelte')} />
			<Later bind:open={finding} load={() => import('$lib/ui/Palette.svelte')} />
			<Later bind:open={whoOpen} load={() => import('$lib/ui/Who.svelte')} />
		</Turn>
	</Turn>
</ThemeProvider>
