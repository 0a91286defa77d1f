<script lang="ts">
	// What the shop does where practitioners differ: work orders follow it.
	import { Button, Radio } from 'flowbite-svelte';
	import { untrack } from 'svelte';
	import * as ask from '$lib/step/api';
	import { refused } from '$lib/api/refused';
	import type { Held, PracticeView } from '$lib/api/types.gen';
	import { toasts } from '$lib/ui/toasts.svelte';
	import { who } from '$lib/ui/who.svelte';
	import type { PageData } from './$types';

	let { data }: { data: PageData } = $props();
	let kept = $derived(data.start);
	const as = (v: PracticeView) => Object.fromEntries(v.rows.map((r) => [r.question, r.chosen]));
	let chosen = $state<Record<string, string>>(as(untrack(() => data.start)));
	const changed = $derived(kept.rows.some((r) => chosen[r.question] !== r.chosen));
	let busy = $state(false);

	async function save(e: SubmitEvent) {
		e.preventDefault();
		busy = true;
		const practice = kept.rows
			.filter((r) => chosen[r.question] !== r.schools[0]!.school)
			.map((r) => ({ question: r.question, school: chosen[r.question] }) as Held);
		try {
			kept = await ask.putPractice({ revision: kept.revision, practice, by: who.name });
			chosen = as(kept);
			toasts.add('done', 'Kept. New jobs follow it; in an open job it is taken in its work order.');
		} catch (e) {
			refused(e);
		} finally {
			busy = false;
		}
	}
</script>

<svelte:head><title>The shop’s practice · Deep Bay</title></svelte:head>

<h1 class="pt-3 text-2xl">The shop’s practice</h1>
<p class="max-w-prose pb-3 text-soft">
	Where practitioners differ, a work order does as the shop does. The first of each is the default.
</p>
<form onsubmit={save} class="grid gap-4 pb-24">
	{#each kept.rows as r (r.question)}
		<fieldset class="border-t border-ink pt-2" data-question={r.question}>
			<legend class="float-left w-full pb-1 text-lg font-semibold">{r.asks}</legend>
			<div class="clear-both grid gap-x-6 gap-y-1 md:grid-cols-2">
				{#each r.schools as s, i (s.school)}
					<Radio
						name={r.question}
						value={s.school}
						bind:group={chosen[r.question]}
						class="min-h-11 items-start py-1 text-base [&>input]:mt-1 [&>input]:shrink-0"
					>
						<span>
							<span class="font-semibold">{s.says}</span>{#if i === 0}<span class="pl-1 text-soft"
									>· default</span
								>{/if}
							<span class="block font-normal">{s.why}</span>
							{#if s.needs}<span class="block border-l-4 border-over pl-2 font-normal"
									>{s.needs}</span
								>{/if}
						</span>
					</Radio>
				{/each}
			</div>
		</fieldset>
	{/each}
	<div class="fixed inset-x-0 bottom-0 border-t-2 border-ink bg-paper px-4 py-2 max-sm:bottom-12">
		<Button type="submit" class="min-h-12" disabled={!changed || busy}>Keep it</Button>
	</div>
</form>
