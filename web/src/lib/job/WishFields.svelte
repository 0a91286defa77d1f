<script lang="ts">
	// The fields of a wish, for a new job and for a change of mind.
	import { Checkbox, Input, Label, Select, Textarea } from 'flowbite-svelte';
	import type { WishDraft } from './wish';

	interface Props {
		draft: WishDraft;
		/** What the server said of a field, by the end of its pointer. */
		fault?: (field: string) => string | undefined;
	}
	let { draft = $bindable(), fault = () => undefined }: Props = $props();
	const uid = $props.id();
	const TESTS = [
		{ value: 'memory', name: 'memory test' },
		{ value: 'self-test', name: 'self-test of the drives' },
		{ value: 'load', name: 'all of it under load' }
	] as const;
</script>

{#snippet hint(field: string)}
	{#if fault(field)}<p class="text-over">{fault(field)}</p>{/if}
{/snippet}

<div class="grid gap-1">
	<Label for="{uid}wish">The wish, in the owner's words</Label>
	<Textarea id="{uid}wish" bind:value={draft.text} rows={2} maxlength={1000} class="w-full" />
</div>
<div class="grid gap-4 sm:grid-cols-2">
	<div class="grid content-start gap-1">
		<Label for="{uid}memory">Memory of at least (GiB)</Label>
		<Input id="{uid}memory" type="number" min="1" max="4096" bind:value={draft.memory} />
		{@render hint('memoryBytes')}
	</div>
	<div class="grid content-start gap-1">
		<Label for="{uid}drive">System drive of at least (GB)</Label>
		<Input id="{uid}drive" type="number" min="1" max="100000" bind:value={draft.drive} />
		{@render hint('systemBytes')}
	</div>
	<div class="grid content-start gap-1">
		<Label for="{uid}untouched">What must not be touched</Label>
		<Input id="{uid}untouched" bind:value={draft.untouched} maxlength={1000} />
	</div>
	<div class="grid content-start gap-1">
		<Label for="{uid}backup">Where the backup is</Label>
		<Input id="{uid}backup" bind:value={draft.backedUp} maxlength={300} />
	</div>
	<div class="grid content-start gap-1">
		<Label for="{uid}enc">Is a disk encrypted?</Label>
		<Select
			id="{uid}enc"
			bind:value={draft.encrypted}
			placeholder=""
			items={[
				{ value: '', name: 'not known' },
				{ value: 'yes', name: 'yes: have the recovery key ready' },
				{ value: 'no', name: 'no' }
			]}
		/>
	</div>
	<div class="grid content-start gap-1">
		<Label for="{uid}most">The system uses no more memory than (GiB)</Label>
		<Input id="{uid}most" type="number" min="1" max="8192" bind:value={draft.most} />
		{@render hint('systemMaxBytes')}
	</div>
	<fieldset class="sm:col-span-2">
		<legend>Tests beyond what the work calls for</legend>
		<div class="flex flex-wrap gap-x-5">
			{#each TESTS as t (t.value)}
				<Checkbox bind:group={draft.tests} value={t.value}>{t.name}</Checkbox>
			{/each}
		</div>
	</fieldset>
	<div class="self-end">
		<Checkbox bind:checked={draft.fast}>The system drive runs over PCIe</Checkbox>
	</div>
</div>
