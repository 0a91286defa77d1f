<script lang="ts">
	// What lies in a machine, written down line by line: the place, then what is printed
	// on the piece. Each line is shown as it was understood while it is typed.
	import { Label, Textarea } from 'flowbite-svelte';
	import { api } from '$lib/api/client';
	import type { Written } from '$lib/api/types.gen';
	import { Live } from '$lib/rule/live.svelte';
	import Taken from '$lib/shelf/Taken.svelte';
	import Mark from '$lib/ui/Mark.svelte';

	interface Props {
		/** What was written. */
		text: string;
		/** A job, or a sheet where there is no job yet, by its path in the API. */
		of: string;
		label: string;
		/** Why it was not taken. */
		fault?: string;
		autofocus?: boolean;
		required?: boolean;
		/** The names of places, to be put in front by a press. */
		places?: readonly string[];
	}
	let {
		text = $bindable(),
		of,
		label,
		fault = '',
		autofocus,
		required,
		places = []
	}: Props = $props();
	const uid = $props.id();
	const example = 'A2: 8GB PC4-2666\nSATA1: 1TB 3.5 sata\nnew: 1TB nvme 2280 gen4 x4';
	const meaning = new Live<readonly Written[]>(
		() => (of && text.trim() ? of + '\n' + text : ''),
		(asked, signal) => {
			const [path = '', ...lines] = asked.split('\n');
			return api.written(path, lines.join('\n'), signal);
		}
	);

	/** Begins a line at a place, or adds a word to a line. */
	function begin(place: string) {
		const open = text === '' || text.endsWith('\n');
		text = `${text}${open ? '' : '\n'}${place}: `;
		document.getElementById(uid)?.focus();
	}
	function settle(i: number, word: string) {
		let n = -1;
		text = text
			.split(/([\n;])/)
			.map((part) => {
				if (!part.trim() || part === ';') return part;
				n++;
				return n === i ? `${part.trimEnd()} ${word}` : part;
			})
			.join('');
	}
</script>

<div class="grid gap-1">
	<Label for={uid}>{label}</Label>
	<Textarea
		id={uid}
		bind:value={text}
		rows={Math.min(8, Math.max(3, text.split('\n').length))}
		{required}
		maxlength={4000}
		class="w-full font-mono"
		autocomplete="off"
		spellcheck="false"
		placeholder={example}
		aria-describedby="{uid}what"
		data-autofocus={autofocus || undefined}
	/>
	{#if places.length > 0}
		<div class="flex flex-wrap gap-1" role="group" aria-label="Begin a line at a place">
			{#each places as p (p)}
				<button
					type="button"
					class="min-h-11 min-w-11 rounded-sm border border-line px-2 font-mono hover:bg-water-1"
					onclick={() => begin(p)}>{p}</button
				>
			{/each}
		</div>
	{/if}
	<div id="{uid}what" aria-live="polite" class="min-h-6">
		{#if fault}<p role="alert" class="text-over">{fault}</p>{/if}
		{#if meaning.failed}
			<p class="text-over">{meaning.failed}</p>
		{:else if meaning.answer}
			<ol class="grid gap-2">
				{#each meaning.answer as w, i (i)}
					<li
						class={['border-l-4 pl-3', w.fault ? 'border-over' : 'border-water-4']}
						data-testid="written"
					>
						{#if w.fault && w.asks.length === 0}
							<p class="flex items-start gap-2 text-over">
								<Mark grade="stops" />
								<span><span class="font-mono">{w.line}</span> {w.says}</span>
							</p>
						{:else}
							<p class="text-soft">
								{w.where.length > 0 ? w.where.join(', ') : w.new ? 'to fit' : ''}
							</p>
							<Taken reply={w} onanswer={(word) => settle(i, word)} />
						{/if}
					</li>
				{/each}
			</ol>
		{/if}
	</div>
</div>
