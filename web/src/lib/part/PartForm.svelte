<script lang="ts">
	// The short form of a part: the few facts that decide whether it fits, the rest folded,
	// and a drawing that answers as one fills in. What each field means is the core's affair.
	import { Input, Select } from 'flowbite-svelte';
	import { api } from '$lib/api/client';
	import type { FormField, FormQuestion, FormValue, Part, ShortForm } from '$lib/api/types.gen';
	import { Live } from '$lib/rule/live.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import PartDrawing from './PartDrawing.svelte';

	interface Props {
		/** Of a new part; one that is corrected has its own. */
		kind?: ShortForm['kind'];
		/** The part that is corrected; none for a new one. */
		start?: Part;
		/** The part as it is filled in, null while it cannot be kept. */
		part?: Part | null;
	}
	let { kind, start, part = $bindable(null) }: Props = $props();
	const uid = $props.id();
	let values = $state.raw<FormValue[]>();

	const live = new Live<ShortForm>(
		() => JSON.stringify({ kind, part: start, values } satisfies FormQuestion),
		(asked, signal) => api.form(JSON.parse(asked) as FormQuestion, signal)
	);
	const form = $derived(live.answer);
	/** What was filled in since the last answer. */
	let unanswered: Record<string, string> = {};
	/** What is being typed: answers that arrive meanwhile leave it alone. */
	let typing = $state<Record<string, string>>({});
	$effect(() => {
		part = form?.whole ? (form.part as Part) : null;
		for (const field of Object.keys(unanswered)) delete typing[field];
		unanswered = {};
	});

	function put(field: string, value: string) {
		unanswered[field] = value;
		part = null; // until it is answered
		values = (form?.fields ?? []).map((f) => ({
			name: f.name,
			value: unanswered[f.name] ?? f.value
		}));
	}
	/** A word that settles a question stands in the field that has it. */
	function settle(word: string) {
		const field = form?.fields.find((f) => f.choices.some((c) => c.word === word));
		if (field) put(field.name, word);
	}
	const items = (f: FormField) => [
		{ value: '', name: f.blank },
		...f.choices.map((c) => ({ value: c.word, name: c.says })),
		...(f.value && !f.choices.some((c) => c.word === f.value)
			? [{ value: f.value, name: f.value }]
			: [])
	];
</script>

{#snippet fields(list: readonly FormField[])}
	<div class="grid gap-3 sm:grid-cols-2">
		{#each list as f (f.name)}
			<div class="grid content-start gap-1">
				<label for="{uid}{f.name}">{f.label}</label>
				{#if f.choices.length > 0}
					<Select
						id="{uid}{f.name}"
						value={f.value}
						placeholder=""
						items={items(f)}
						aria-describedby={f.fault ? `${uid}${f.name}fault` : undefined}
						onchange={(e) => put(f.name, e.currentTarget.value)}
					/>
				{:else}
					<Input
						id="{uid}{f.name}"
						value={typing[f.name] ?? f.value}
						placeholder={f.example}
						maxlength={120}
						autocomplete="off"
						aria-invalid={f.fault ? 'true' : undefined}
						aria-describedby={f.fault ? `${uid}${f.name}fault` : undefined}
						oninput={(e) => (typing[f.name] = (e.currentTarget as HTMLInputElement).value)}
						onchange={(e) => put(f.name, (e.currentTarget as HTMLInputElement).value)}
					/>
				{/if}
				{#if f.fault}<p id="{uid}{f.name}fault" class="text-over">{f.fault}</p>{/if}
			</div>
		{/each}
	</div>
{/snippet}

<div class="grid gap-3" data-testid="part-form">
	{#if live.failed}
		<p role="alert" class="text-over">{live.failed}</p>
	{/if}
	{#if form}
		<div class="flex flex-wrap items-center gap-4 border-b border-line pb-3" aria-live="polite">
			<PartDrawing part={form.part as Part} />
			<div class="min-w-48 flex-1">
				{#if form.fault}
					<p class="text-over">{form.fault}</p>
				{:else if form.says}
					<p><strong>{form.says}</strong></p>
				{/if}
				{#if form.lacks}<p class="text-soft">not said: {form.lacks}</p>{/if}
				{#each form.asks as a (a.about)}
					<p class="flex flex-wrap items-center gap-2">
						<Mark grade="unknown" />
						{a.about}?
						{#each a.choices as c (c)}
							{#if form.fields.some((f) => f.choices.some((x) => x.word === c))}
								<button
									type="button"
									class="min-h-11 rounded-md border border-line bg-raised px-3 hover:bg-water-1"
									onclick={() => settle(c)}>{c}</button
								>
							{:else}<span class="font-mono">{c}</span>{/if}
						{/each}
					</p>
				{/each}
			</div>
		</div>
		{@render fields(form.fields.filter((f) => !f.fold))}
		{#if form.fields.some((f) => f.fold)}
			<details>
				<summary class="min-h-11 cursor-pointer py-2">What seldom decides</summary>
				{@render fields(form.fields.filter((f) => f.fold))}
			</details>
		{/if}
	{:else if !live.failed}
		<p role="status">Reading the form…</p>
	{/if}
</div>
