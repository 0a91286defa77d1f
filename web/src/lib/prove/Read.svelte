<script lang="ts">
	// The machine tells about itself: a file of it is dropped here, or it sends itself in.
	import { Button } from 'flowbite-svelte';
	import { refused } from '$lib/api/refused';
	import type { Invitation, TroubleView } from '$lib/api/types.gen';
	import { useSession } from '$lib/job/session.svelte';
	import FileButton from '$lib/ui/FileButton.svelte';
	import Quiet from '$lib/ui/Quiet.svelte';
	import { toasts } from '$lib/ui/toasts.svelte';
	import * as api from './api';
	import { takeFile } from './take';

	let { view }: { view: TroubleView | undefined } = $props();
	const get = useSession();
	const session = $derived(get());
	let how = $state.raw<Invitation>();

	async function ask() {
		try {
			how = await api.invite(session.job.id);
		} catch (e) {
			refused(e);
		}
	}
	async function copy(text: string) {
		try {
			await navigator.clipboard.writeText(text);
			toasts.add('done', 'Copied');
		} catch {
			toasts.add('error', 'The browser does not let it be copied: mark the line and copy it');
		}
	}
</script>

<div class="flex flex-wrap items-center gap-x-4 gap-y-2 py-2">
	<p class="text-soft">
		{#if view}Set-up with {view.keys.setUp}; boot menu with {view.keys.boot}.{/if}
	</p>
	<span class="grow"></span>
	{#if !session.closed}
		<FileButton
			label="What the machine tells about itself"
			accept=".json,.txt"
			ontake={(file) => takeFile(session, file)}>Read a file of the machine</FileButton
		>
		<Button color="alternative" onclick={ask}>How does it send itself in?</Button>
	{/if}
</div>
{#if how}
	<div class="mb-3 grid gap-2 border-l-4 border-water-4 pl-4" data-testid="invite">
		<p>{how.says}</p>
		{#each how.linux as line (line)}<code class="block overflow-x-auto">{line}</code>{/each}
		{#if how.linux.length > 0}<Quiet onclick={() => copy(how?.linux.join('\n') ?? '')}
				>Copy these lines</Quiet
			>{/if}
		<p>
			A Windows machine tells by this line in its own shell; drop what it prints here, as a file.
			<Quiet onclick={() => copy(how?.windows ?? '')}>Copy the line</Quiet>
		</p>
		<code class="block max-h-16 overflow-auto break-all text-soft">{how.windows}</code>
	</div>
{/if}
{#each view?.strange ?? [] as s, i (i)}
	<p class="border-l-4 border-over py-1 pl-3" data-testid="strange">{s}</p>
{/each}
