<script lang="ts">
	// Pages of the machine's manual, as pictures beside its sheet: to read them while the facts
	// are written, and to see later where they came from.
	import { Input, Label } from 'flowbite-svelte';
	import * as ask from '$lib/step/api';
	import { refused } from '$lib/api/refused';
	import type { SheetPicture } from '$lib/api/types.gen';
	import FileButton from '$lib/ui/FileButton.svelte';
	import Quiet from '$lib/ui/Quiet.svelte';
	import { when } from '$lib/ui/text';
	import { who } from '$lib/ui/who.svelte';

	interface Props {
		sheet: string;
		pages: readonly SheetPicture[];
		/** Which one is looked at. */
		shown?: string;
	}
	let { sheet, pages: given, shown = $bindable() }: Props = $props();
	let pages = $derived(given);
	const of = $derived(`/sheets/${encodeURIComponent(sheet)}`);
	const uid = $props.id();
	let large = $state(false);
	let says = $state('');
	let busy = $state(false);
	const page = $derived(pages.find((p) => p.id === shown));

	async function keep(file: File) {
		busy = true;
		try {
			const there = pages.map((p) => p.id);
			pages = await ask.keepPicture(of, file, says, who.name, crypto.randomUUID());
			shown = pages.find((p) => !there.includes(p.id))?.id ?? shown;
			says = '';
		} catch (e) {
			refused(e);
		} finally {
			busy = false;
		}
	}
	async function drop(p: SheetPicture) {
		if (!confirm(`Take ${p.says} away? Its picture is kept nowhere else here.`)) return;
		try {
			pages = await ask.dropPicture(of, p.id);
		} catch (e) {
			refused(e);
		}
	}
</script>

<section aria-labelledby="{uid}h" class="min-w-0" data-testid="pages">
	<h2 id="{uid}h">Pages of the manual</h2>
	{#if pages.length === 0}
		<p class="text-soft">None yet: a photograph of the page with the slots is worth a lot later.</p>
	{/if}
	<ul class="flex flex-wrap gap-1">
		{#each pages as p (p.id)}
			<li>
				<button
					class={[
						'min-h-11 rounded-sm border px-3 hover:border-ink',
						p.id === shown ? 'border-ink bg-water-1' : 'border-line bg-land'
					]}
					aria-pressed={p.id === shown}
					onclick={() => (shown = p.id === shown ? undefined : p.id)}>{p.says}</button
				>
			</li>
		{/each}
	</ul>
	{#if page}
		<!-- A large page scrolls in its own frame; the keyboard must reach it to do so. -->
		<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
		<div
			class="mt-1 max-h-[75dvh] overflow-auto border border-line bg-white"
			tabindex="0"
			role="region"
			aria-label={page.says}
		>
			<img
				src="/api/sheets/{encodeURIComponent(sheet)}/pictures/{page.id}"
				alt="{page.says} of the manual"
				width={page.width}
				height={page.height}
				class={large ? 'max-w-none' : 'h-auto w-full'}
			/>
		</div>
		<p class="flex flex-wrap items-center gap-x-4 text-soft">
			<span>{page.by}, {when(page.at)}</span>
			<Quiet onclick={() => (large = !large)}>{large ? 'Fit the frame' : 'Full size'}</Quiet>
			<Quiet onclick={() => drop(page)}>Take it away</Quiet>
		</p>
	{/if}
	<div class="mt-2 flex flex-wrap items-end gap-2">
		<div class="w-44">
			<Label for="{uid}s">What it shows</Label>
			<Input
				id="{uid}s"
				bind:value={says}
				maxlength={120}
				placeholder="page 34"
				autocomplete="off"
			/>
		</div>
		<FileButton
			label="Picture of the page"
			accept="image/jpeg,image/png,image/webp"
			disabled={busy || !says.trim()}
			ontake={keep}>{busy ? 'Keeping…' : 'Keep a picture of it'}</FileButton
		>
	</div>
</section>
