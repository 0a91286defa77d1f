<script lang="ts">
	// The manual's footnotes as sentences: when this holds, then that is so.
	import { Button, Select } from 'flowbite-svelte';
	import type { Condition, Effect } from '$lib/api/types.gen';
	import { useDraft } from './draft.svelte';
	import Field from './Field.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import * as say from './sentences';

	const get = useDraft();
	const draft = $derived(get());
	const s = $derived(draft.sheet);
	/** What can be said; the last answer holds until the next one. */
	const can = $derived(draft.check?.sayable ?? { when: [], then: [] });
	const subjects = $derived(say.subjects(can));
	const objects = $derived(say.objects(can));

	// As wide as what is chosen, so that a rule is read in one line.
	const narrow = {
		class: 'w-auto',
		classes: {
			select: 'field-sizing-content w-auto bg-position-[right_0.4rem_center] pr-7 pl-2'
		}
	} as const;
	const slim = { color: 'alternative', class: 'size-11 p-0' } as const;

	/** Pick lists with what is chosen now, even where it leads nowhere any more. */
	const items = (words: readonly say.Word[], now: string) =>
		words.some((w) => w.value === now)
			? [...words]
			: [{ value: now, name: now && !now.startsWith('{') ? `${now} ?` : '?' }, ...words];

	function put(i: number, j: number, c: Condition) {
		draft.change((x) => (x.rules[i]!.when[j] = c));
	}
	function then(i: number, j: number, e: Effect) {
		draft.change((x) => (x.rules[i]!.then[j] = e));
	}
	/** A new rule says nothing yet. */
	const add = () =>
		draft.change((x) => x.rules.push({ id: draft.free('rules', 'rule-'), when: [{}], then: [{}] }));
	const doubts = (i: number) =>
		(draft.check?.doubts ?? []).filter((p) => p.pointer.startsWith(`/rules/${i}/`));
	const faults = (i: number, part: string) =>
		draft.problems.filter((p) => p.pointer.startsWith(`/rules/${i}/${part}`));
</script>

{#snippet small(what: string, onclick: () => void)}
	<button
		class="size-11 rounded border border-line hover:bg-overtint"
		aria-label={what}
		title={what}
		{onclick}>×</button
	>
{/snippet}

{#if s.rules.length === 0}
	<p class="text-soft">
		No rules yet. A footnote such as “SATA5 is not available when M2_2 is used” becomes one.
	</p>
{/if}
<ol class="grid gap-3">
	{#each s.rules as r, i (i)}
		<li class="border-t border-line pt-2" data-at="/rules/{i}" tabindex="-1">
			<div class="grid gap-2 sm:grid-cols-[1fr_auto]">
				<div class="flex flex-wrap items-center gap-2">
					{#each r.when as c, j (j)}
						{@const subject = say.subjectOf(c)}
						<span>{j === 0 ? 'When' : 'and'}</span>
						<Select
							{...narrow}
							aria-label="Rule {i + 1}: what condition {j + 1} asks about"
							data-at="/rules/{i}/when/{j}"
							placeholder=""
							value={subject}
							items={items(subjects, subject)}
							onchange={(e) => put(i, j, say.ask(can, e.currentTarget.value))}
						/>
						<Select
							{...narrow}
							aria-label="Rule {i + 1}: what condition {j + 1} says"
							placeholder=""
							value={say.asked(c)}
							items={items(say.predicates(can, subject), say.asked(c))}
							onchange={(e) => put(i, j, JSON.parse(e.currentTarget.value) as Condition)}
						/>
						{#if r.when.length > 1}
							{@render small(`Take condition ${j + 1} of rule ${i + 1} away`, () =>
								draft.change((x) => x.rules[i]!.when.splice(j, 1))
							)}
						{/if}
					{/each}
					<Button
						{...slim}
						aria-label="Add a condition to rule {i + 1}"
						onclick={() => draft.change((x) => x.rules[i]!.when.push({}))}>+</Button
					>
					{#each r.then as e, j (j)}
						{@const object = say.objectOf(e)}
						<span>{j === 0 ? 'then' : 'and'}</span>
						<Select
							{...narrow}
							aria-label="Rule {i + 1}: what effect {j + 1} is on"
							data-at="/rules/{i}/then/{j}"
							placeholder=""
							value={object}
							items={items(objects, object)}
							onchange={(ev) => then(i, j, say.effectOn(can, ev.currentTarget.value, e))}
						/>
						<Select
							{...narrow}
							aria-label="Rule {i + 1}: what effect {j + 1} does"
							placeholder=""
							value={say.done(e)}
							items={items(say.effects(can, object), say.done(e))}
							onchange={(ev) => then(i, j, JSON.parse(ev.currentTarget.value) as Effect)}
						/>
						{#if r.then.length > 1}
							{@render small(`Take effect ${j + 1} of rule ${i + 1} away`, () =>
								draft.change((x) => x.rules[i]!.then.splice(j, 1))
							)}
						{/if}
					{/each}
					<Button
						{...slim}
						aria-label="Add an effect to rule {i + 1}"
						onclick={() => draft.change((x) => x.rules[i]!.then.push({}))}>+</Button
					>
				</div>
				<div class="flex items-start gap-2">
					<div class="w-28">
						<Field
							at="/rules/{i}/says"
							label="Rule {i + 1}: place in the manual"
							bare
							placeholder="manual p. …"
						/>
					</div>
					{@render small(`Take rule ${i + 1} away`, () => draft.remove('rules', i))}
				</div>
			</div>
			{#each [...faults(i, 'when'), ...faults(i, 'then'), ...draft.at(`/rules/${i}`)] as f (f.pointer + f.says)}
				<p class="text-over">{f.says}; {f.cure}</p>
			{/each}
			{#each doubts(i) as d (d.pointer + d.says)}
				<p class="flex items-start gap-2"><Mark grade="warns" size={18} /> {d.says}; {d.cure}</p>
			{/each}
		</li>
	{/each}
</ol>
<Button color="alternative" class="mt-3" onclick={add}>Add a rule</Button>
