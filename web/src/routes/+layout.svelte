<script lang="ts">
	import '../app.css';
	import { afterNavigate } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { navigating, page } from '$app/state';
	import { Button, Input, Label, ThemeProvider } from 'flowbite-svelte';
	import type { Snippet } from 'svelte';
	import Dialog from '$lib/ui/Dialog.svelte';
	import { theme as flowbite } from '$lib/ui/flowbite';
	import { KEYS, shortcut } from '$lib/ui/shortcut';
	import { theme } from '$lib/ui/theme.svelte';
	import Toasts from '$lib/ui/Toasts.svelte';
	import { who } from '$lib/ui/who.svelte';

	let { children }: { children: Snippet } = $props();
	let keysOpen = $state(false);
	let whoOpen = $state(false);
	let name = $derived(who.name);
	let main: HTMLElement;

	afterNavigate(({ type }) => {
		if (type !== 'enter') main.focus({ preventScroll: false });
	});

	function setWho(e: SubmitEvent) {
		e.preventDefault();
		who.set(name);
		whoOpen = false;
	}
</script>

<ThemeProvider theme={flowbite}>
	<a
		href="#main"
		class="sr-only z-50 rounded bg-raised p-3 text-ink focus:not-sr-only focus:absolute focus:top-1 focus:left-1"
		>Skip to the work</a
	>
	<header class="no-print border-b border-line">
		<div class="mx-auto flex max-w-[1500px] flex-wrap items-center gap-x-3 px-4">
			<a href={resolve('/')} class="flex min-h-12 items-center gap-2 text-lg font-semibold">
				<svg viewBox="0 0 28 28" class="size-7" aria-hidden="true">
					<rect width="28" height="28" rx="5" class="fill-land" />
					<path d="M0 11c6-4 11 4 28-1v18H0z" class="fill-water-2" />
					<path d="M0 17.500c8-4 13 3 28-1V28H0z" class="fill-water-4" />
					<path d="M0 23.500c9-3 16 2 28-1V28H0z" class="fill-water-6" />
				</svg>
				Deep Bay
			</a>
			<nav aria-label="Rooms" class="flex">
				{#each [['/', 'Bench', 'b'], ['/sheets', 'Sheets', 's'], ['/shelf', 'Shelf', 'l'], ['/rule', 'Slide rule', 'r']] as const as [to, label, k] (to)}
					<a
						href={resolve(to)}
						aria-current={(to === '/' ? page.url.pathname === to : page.url.pathname.startsWith(to))
							? 'page'
							: undefined}
						class={[
							'flex min-h-12 items-center border-b-4 px-3 hover:bg-water-1',
							(to === '/' ? page.url.pathname === to : page.url.pathname.startsWith(to))
								? 'border-ink font-semibold'
								: 'border-transparent'
						]}
						{@attach shortcut(k)}>{label}</a
					>
				{/each}
			</nav>
			<span class="grow"></span>
			<button
				class="min-h-11 rounded-md px-3 underline decoration-dotted underline-offset-4 hover:bg-water-1"
				onclick={() => (whoOpen = true)}
			>
				{who.name ? `At the bench: ${who.name}` : 'Who is at the bench?'}
			</button>
			<button class="min-h-11 rounded-md px-3 hover:bg-water-1" onclick={() => theme.toggle()}>
				{theme.night ? 'Day colours' : 'Night colours'}
			</button>
			<button
				class="min-h-11 rounded-md px-3 hover:bg-water-1"
				onclick={() => (keysOpen = true)}
				{@attach shortcut('?')}>Keys</button
			>
		</div>
	</header>
	<div role="status" class="sr-only">{navigating.to ? 'Loading' : ''}</div>
	{#if navigating.to}<div
			class="fixed inset-x-0 top-0 z-50 h-1 bg-over"
			aria-hidden="true"
		></div>{/if}
	<main id="main" tabindex="-1" bind:this={main} class="mx-auto max-w-[1500px] px-4 outline-none">
		{@render children()}
	</main>
	<Toasts />

	<Dialog bind:open={keysOpen} title="Keys" size="md">
		<dl class="grid grid-cols-[4.5rem_1fr] gap-y-2 text-base sm:grid-cols-[4.5rem_1fr_4.5rem_1fr]">
			{#each KEYS as k (k.key)}
				<dt><kbd class="mono rounded border border-line bg-raised px-2 py-0.5">{k.key}</kbd></dt>
				<dd>{k.what}</dd>
			{/each}
		</dl>
	</Dialog>

	<Dialog bind:open={whoOpen} title="Who is at the bench?" size="xs">
		<form class="grid gap-3" onsubmit={setWho}>
			<Label for="who">Name written beside what is done</Label>
			<Input id="who" bind:value={name} maxlength={80} autocomplete="off" data-autofocus />
			<Button type="submit">Keep</Button>
		</form>
	</Dialog>
</ThemeProvider>
