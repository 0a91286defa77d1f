<script lang="ts">
	// What the screens showed before the work: read once, while the machine is as it came.
	import FileButton from '$lib/ui/FileButton.svelte';
	import { takeFile } from '$lib/prove/take';
	import LineRow from './LineRow.svelte';
	import { useSession } from './session.svelte';

	const get = useSession();
	const session = $derived(get());
	const before = $derived(session.view.before);
	let looking = $state(false);
</script>

{#if before.length > 0}
	<details class="mb-3 border-2 border-line px-3" data-testid="before" bind:open={looking}>
		<summary class="min-h-11 cursor-pointer py-2.5">
			<h2 class="inline text-base">
				Before the work, as it came: {before.filter((l) => l.reading).length} of {before.length} lines
				read
			</h2>
		</summary>
		<p class="max-w-prose text-soft">
			What the screens of the machine showed before it was opened is proof of what manual and labels
			leave out: a drive that was listed goes in there and is seen there.
		</p>
		{#if !session.closed}
			<FileButton
				label="What the machine tells about itself, as it came"
				accept=".json,.txt"
				ontake={(file) => takeFile(session, file, 'found')}>Read a file of it as it came</FileButton
			>
		{/if}
		<ul>
			{#each looking ? before : [] as l (l.id)}
				<LineRow
					line={l}
					locked={session.closed}
					onconfirm={() => session.change({ do: 'confirm', in: 'found', line: l.id })}
					onread={(text) => session.change({ do: 'read', in: 'found', line: l.id, text })}
					onforget={() => session.change({ do: 'forget', in: 'found', line: l.id })}
				/>
			{/each}
		</ul>
	</details>
{/if}
