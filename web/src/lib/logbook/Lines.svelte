<script lang="ts">
	// Lines of journals by day, the latest first: the days stand in the margin.
	import { resolve } from '$app/paths';
	import type { LogbookLine } from '$lib/api/types.gen';
	import { when } from '$lib/ui/text';

	let { lines }: { lines: readonly LogbookLine[] } = $props();
	const days = $derived.by(() => {
		const out: { day: string; lines: { time: string; line: LogbookLine }[] }[] = [];
		for (const line of lines) {
			const [day = '', time = ''] = when(line.at).split(', ');
			if (out.at(-1)?.day !== day) out.push({ day, lines: [] });
			out.at(-1)!.lines.push({ time, line });
		}
		return out;
	});
	const NOUN = { job: 'job', sheet: 'sheet', part: 'shelf' } as const;
	const at = (l: LogbookLine) =>
		l.kind === 'job'
			? resolve('/jobs/[id]', { id: l.thing })
			: l.kind === 'sheet'
				? resolve('/sheets/[[id]]', { id: l.thing })
				: resolve('/shelf') + '?q=' + encodeURIComponent(l.called);
</script>

<ol data-testid="lines">
	{#each days as d, i (i)}
		<li class="grid sm:grid-cols-[7.5rem_1fr]">
			<p class="pt-3 font-semibold whitespace-nowrap">{d.day}</p>
			<ol class="border-coast sm:border-l-4 sm:border-double">
				{#each d.lines as { time, line }, k (k)}
					<li class="flex flex-wrap gap-x-3 border-b border-line py-2 sm:pl-4">
						<time class="text-soft tabular-nums" datetime={line.at}>{time}</time>
						<span class="min-w-0 flex-1 basis-80">
							<a
								href={/* eslint-disable-line svelte/no-navigation-without-resolve -- it is, with a query */ at(
									line
								)}
								class="font-semibold underline decoration-dotted underline-offset-4"
								>{line.called}</a
							>
							<span class="text-soft">· {NOUN[line.kind]}, version {line.revision}</span>
							<span class="block break-words">{line.says}</span>
						</span>
						<span class="text-soft">{line.by}</span>
					</li>
				{/each}
			</ol>
		</li>
	{/each}
</ol>
