<script lang="ts">
	// Where the work stands, for a colleague who goes on with it.
	import { Button, Input, Label } from 'flowbite-svelte';
	import { useSession } from '$lib/job/session.svelte';
	import Dialog from '$lib/ui/Dialog.svelte';
	import { toasts } from '$lib/ui/toasts.svelte';
	import { who } from '$lib/ui/who.svelte';

	let { open = $bindable() }: { open: boolean } = $props();
	const get = useSession();
	const session = $derived(get());
	let name = $state('');
	function go(e: SubmitEvent) {
		e.preventDefault();
		if (name) who.set(name);
		open = false;
	}
	async function copy() {
		await navigator.clipboard.writeText([session.job.title, ...session.view.stands].join('\n'));
		toasts.add('done', 'Copied');
	}
</script>

<Dialog bind:open title="To a colleague" size="md">
	<p>{session.job.title}{session.job.stands ? `, ${session.job.stands}` : ''}</p>
	<ul class="list-disc pl-6" data-testid="stands">
		{#each session.view.stands as s, i (i)}<li>{s}</li>{/each}
	</ul>
	<form class="grid gap-3" onsubmit={go}>
		<Label
			>Who goes on
			<Input bind:value={name} maxlength={80} placeholder={who.name} autocomplete="off" /></Label
		>
		<div class="flex gap-3">
			<Button type="submit">Go on</Button>
			<Button color="alternative" onclick={copy}>Copy it</Button>
		</div>
	</form>
</Dialog>
