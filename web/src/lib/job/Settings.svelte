<script lang="ts">
	// The processor and the firmware settings on which rules of the sheet hang.
	import { Select } from 'flowbite-svelte';
	import { useDesk } from './desk.svelte';

	const desk = useDesk();
	const session = $derived(desk.session);
	const sheet = $derived(session.job.sheet);
	const unknown = { value: '', name: 'not known' };
</script>

{#snippet row(
	id: string,
	label: string,
	value: string,
	items: { value: string; name: string }[],
	set: (value: string) => unknown
)}
	<li class="grid grid-cols-[1fr_9rem] items-center gap-2">
		<label for={id}>{label}</label>
		<Select
			{id}
			{value}
			{items}
			placeholder=""
			disabled={session.closed}
			onchange={(e) => set(e.currentTarget.value)}
		/>
	</li>
{/snippet}

<ul class="grid gap-2">
	{#if sheet.processors?.length}
		{@render row(
			'processor',
			'Processor fitted',
			session.job.processor ?? '',
			[unknown, ...sheet.processors.map((p) => ({ value: p.id, name: p.name }))],
			(value) => desk.change({ do: 'processor', value })
		)}
	{/if}
	{#each sheet.settings as s (s.id)}
		{@const value = desk.resolved.settings.find((x) => x.setting === s.id)?.value ?? ''}
		{@render row(
			`set-${s.id}`,
			s.name,
			value,
			[...(value ? [] : [unknown]), ...s.options.map((o) => ({ value: o.value, name: o.name }))],
			(value) => desk.change({ do: 'set', in: desk.shown, setting: s.id, value })
		)}
	{/each}
</ul>
