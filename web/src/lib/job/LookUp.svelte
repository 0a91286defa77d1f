<script lang="ts">
	// One fact that nobody has told yet, with the answers that there are: whoever has the
	// thing in hand says it here, and it is true in this job.
	import { Button, Input, Select } from 'flowbite-svelte';
	import type { Missing } from '$lib/api/types.gen';
	import { useSession } from './session.svelte';

	let { missing, onanswered }: { missing: Missing; onanswered?: () => void } = $props();
	const get = useSession();
	const session = $derived(get());
	const uid = $props.id();

	/** So many answers stand side by side; more are in a list. */
	const SIDE_BY_SIDE = 4;
	const ask = $derived(missing.ask);
	const options = $derived(ask?.options ?? []);
	const asButtons = $derived(ask?.kind === 'one' && options.length <= SIDE_BY_SIDE);
	let typed = $state('');
	let several = $state.raw<readonly string[]>([]);
	const value = $derived(
		ask?.kind === 'several'
			? options
					.map((o) => o.value)
					.filter((v) => several.includes(v))
					.join(' ')
			: String(typed ?? '').trim()
	);

	async function answer(is: string) {
		const { item, position, socket, setting, modulesPerChannel, attr } = missing;
		const taken = await session.change({
			do: 'look',
			fact: { item, position, socket, setting, modulesPerChannel, attr },
			value: is
		});
		if (taken) onanswered?.();
	}
	const toggle = (v: string) =>
		(several = several.includes(v) ? several.filter((o) => o !== v) : [...several, v]);
</script>

{#if !ask || session.closed}
	<span>{missing.says}</span>
{:else if asButtons}
	<div role="group" aria-labelledby="{uid}q" class="flex flex-wrap items-center gap-1.5">
		<span id="{uid}q">{missing.says}:</span>
		{#each options as o (o.value)}
			<Button
				color="alternative"
				class="min-w-11 px-3"
				aria-label="{missing.says}: {o.says}"
				onclick={() => answer(o.value)}>{o.says}</Button
			>
		{/each}
	</div>
{:else}
	<form
		class="flex flex-wrap items-center gap-1.5"
		onsubmit={(e) => {
			e.preventDefault();
			if (value) void answer(value);
		}}
	>
		{#if ask.kind === 'several'}
			<div role="group" aria-labelledby="{uid}q" class="flex flex-wrap items-center gap-1.5">
				<span id="{uid}q">{missing.says}:</span>
				{#each options as o (o.value)}
					<button
						type="button"
						class={[
							'min-h-11 min-w-11 rounded-sm border px-3',
							several.includes(o.value) ? 'border-2 border-ink bg-water-1' : 'border-line bg-land'
						]}
						aria-pressed={several.includes(o.value)}
						onclick={() => toggle(o.value)}>{o.says}</button
					>
				{/each}
			</div>
		{:else if ask.kind === 'one'}
			<label for="{uid}a">{missing.says}:</label>
			<Select
				id="{uid}a"
				class="w-36"
				bind:value={typed}
				placeholder=""
				items={[
					{ value: '', name: 'choose' },
					...options.map((o) => ({ value: o.value, name: o.says }))
				]}
			/>
		{:else}
			<label for="{uid}a">{missing.says}:</label>
			<Input
				id="{uid}a"
				class="w-24"
				autocomplete="off"
				inputmode={ask.kind === 'number' ? 'decimal' : 'text'}
				placeholder={ask.kind === 'size' ? '500 GB' : ''}
				bind:value={typed}
			/>
			{#if ask.unit && ask.unit !== 'opening'}<span>{ask.unit}</span>{/if}
		{/if}
		<Button type="submit" color="alternative" class="px-3" disabled={!value}>It is so</Button>
	</form>
{/if}
{#if missing.if}<p class="text-soft">it works if {missing.if}</p>{/if}
