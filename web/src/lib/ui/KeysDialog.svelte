<script lang="ts">
	// All commands with their keys, which can be changed here or switched off.
	import { Button, Checkbox } from 'flowbite-svelte';
	import { COMMANDS, keys, written, type CommandId } from './commands.svelte';
	import Dialog from './Dialog.svelte';

	let { open = $bindable() }: { open: boolean } = $props();
	let changing = $state<CommandId>();

	function take(e: KeyboardEvent, id: CommandId) {
		if (changing !== id || /^(Tab|Shift|Control|Alt|Meta|Enter| )$/.test(e.key)) return;
		e.preventDefault();
		e.stopPropagation();
		if (e.key !== 'Escape') keys.set(id, e.key.toLowerCase());
		changing = undefined;
	}

	/** Keys that are no commands: they belong to the control in focus. */
	const OTHER_KEYS = [
		{ key: 'Ctrl K', what: 'Find a command by its words' },
		{
			key: 'Arrows',
			what: 'From socket to socket on the chart; move one, in a sheet (Shift: 5 mm)'
		},
		{ key: 'Right', what: 'Step by step: done, and the next; space and page down too' },
		{ key: 'Left', what: 'Step by step: back one; page up too' },
		{ key: 'Space', what: 'Tick the step in focus, in Work order' }
	] as const;
</script>

<Dialog bind:open title="Keys" size="md">
	<Checkbox checked={!keys.off} onchange={(e) => keys.switch(!e.currentTarget.checked)}
		>Single keys give commands</Checkbox
	>
	<ul class="mt-2 grid gap-x-6 sm:grid-cols-2">
		{#each COMMANDS as c (c.id)}
			<li class="grid grid-cols-[3.5rem_1fr] items-center">
				<button
					class={[
						'mono min-h-9 rounded border px-1',
						changing === c.id ? 'border-over bg-overtint' : 'border-line bg-raised hover:bg-water-1'
					]}
					aria-label="{written(keys.of(c.id))}: {c.what}; change this key"
					aria-pressed={changing === c.id}
					onclick={() => (changing = changing === c.id ? undefined : c.id)}
					onkeydown={(e) => take(e, c.id)}
					onblur={() => (changing = undefined)}
					>{changing === c.id ? 'press' : written(keys.of(c.id))}</button
				>
				<span class="px-2 py-1 leading-tight">{c.what}</span>
			</li>
		{/each}
		{#each OTHER_KEYS as k (k.key)}
			<li class="grid grid-cols-[3.5rem_1fr] items-center">
				<kbd class="mono text-center text-soft">{k.key}</kbd>
				<span class="px-2 py-1 leading-tight">{k.what}</span>
			</li>
		{/each}
	</ul>
	{#if keys.changed}
		<Button class="mt-2" color="alternative" onclick={() => keys.reset()}
			>Take the usual keys again</Button
		>
	{/if}
</Dialog>
