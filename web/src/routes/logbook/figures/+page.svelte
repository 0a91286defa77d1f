<script lang="ts">
	import { invalidateAll } from '$app/navigation';
	import { resolve } from '$app/paths';
	import { Button, Label, Select, TableBodyCell, TableBodyRow } from 'flowbite-svelte';
	import { refusal } from '$lib/api/refused';
	import Months from '$lib/logbook/Months.svelte';
	import Rooms from '$lib/logbook/Rooms.svelte';
	import { bringShop } from '$lib/logbook/api';
	import { asking } from '$lib/ui/search.svelte';
	import FileButton from '$lib/ui/FileButton.svelte';
	import Table from '$lib/ui/Table.svelte';
	import { toasts } from '$lib/ui/toasts.svelte';
	import type { PageProps } from './$types';

	let { data }: PageProps = $props();
	const f = $derived(data.figures);
	const file = (as: string) => `/api/figures/file?months=${data.months}&as=${as}`;
	const of = (n: number) => n.toLocaleString('en', { maximumFractionDigits: 1 });
	const SPANS = [
		[12, 'the last year'],
		[24, 'the last two years'],
		[60, 'the last five years'],
		[120, 'the last ten years']
	] as const;

	async function take(shop: File) {
		try {
			const got = await bringShop(shop);
			toasts.add('done', `The shop is here: ${got.name}`);
			await invalidateAll();
		} catch (e) {
			const { problem, message } = refusal(e);
			const first = problem.errors?.[0];
			toasts.add('error', first ? `${first.pointer}: ${first.says}` : message);
		}
	}
</script>

<svelte:head><title>Figures · Deep Bay</title></svelte:head>

<div class="flex flex-wrap items-end gap-x-6 gap-y-2 pt-4 pb-3">
	<h1>Logbook</h1>
	<Rooms />
	<span class="grow"></span>
	<div class="w-52">
		<Label for="span">Over</Label>
		<Select
			id="span"
			value={data.months}
			placeholder=""
			items={SPANS.map(([value, name]) => ({ value, name }))}
			onchange={(e) => asking(`${resolve('/logbook/figures')}?months=${e.currentTarget.value}`)}
		/>
	</div>
	<Button color="alternative" href={file('csv')} data-sveltekit-reload download
		>Save as a list</Button
	>
	<Button color="alternative" href={file('json')} data-sveltekit-reload download
		>Save as JSON</Button
	>
</div>

{#if f.tables.length === 0}
	<p class="py-6">No job was finished in that time: figures come from finished jobs.</p>
{/if}
<div class="gap-x-8 xl:columns-2">
	{#each f.tables as t (t.of)}
		{@const most = Math.max(...t.rows.flatMap((r) => r.months))}
		{@const timed = t.of === 'phase'}
		<section data-testid="figures-{t.of}" class="break-inside-avoid pb-6">
			<h2>{t.head}</h2>
			<Table
				caption={t.head}
				heads={[
					{ text: timed ? 'step' : 'which' },
					{ text: timed ? 'timed' : 'how many', class: 'text-right' },
					...(t.unit ? [{ text: t.unit, class: 'text-right' }] : []),
					...(timed ? [{ text: 'expected', class: 'text-right' }] : []),
					{ text: `${f.months[0]} to ${f.months.at(-1)}` }
				]}
			>
				{#each t.rows as r (r.name)}
					<TableBodyRow>
						<TableBodyCell class="whitespace-normal">{r.name}</TableBodyCell>
						<TableBodyCell class="text-right tabular-nums">{r.n}</TableBodyCell>
						{#if t.unit}<TableBodyCell class="text-right tabular-nums"
								>{of(r.took ?? 0)}</TableBodyCell
							>{/if}
						{#if timed}<TableBodyCell class="text-right whitespace-nowrap tabular-nums"
								>{of(r.expected ?? 0)}{#if (r.took ?? 0) > (r.expected ?? 0) * 1.25}<span
										class="text-over"
									>
										&nbsp;▲ longer</span
									>{:else if (r.took ?? 0) < (r.expected ?? 0) * 0.8}<span>
										&nbsp;▼ shorter</span
									>{/if}</TableBodyCell
							>{/if}
						<TableBodyCell class="w-1/2">
							<Months
								months={f.months}
								values={r.months}
								{most}
								says="{r.name}: {f.months
									.map((m, i) => [m, r.months[i] ?? 0] as const)
									.filter(([, v]) => v > 0)
									.map(([m, v]) => `${m} ${of(v)}`)
									.join(', ')}"
							/>
						</TableBodyCell>
					</TableBodyRow>
				{/each}
			</Table>
		</section>
	{/each}
</div>

<section class="mt-8 border-t border-line pt-4 pb-8">
	<h2>The whole shop</h2>
	<p class="max-w-prose">
		Sheets, shelf, jobs, journals with every version, pictures and the shop’s practice in one file
		of open formats. It has owners’ names and serial numbers in it: keep it as you keep backups. It
		goes into a new, empty data file, all of it or nothing.
	</p>
	<div class="flex flex-wrap gap-3 pt-2">
		<Button href="/api/shop/file" data-sveltekit-reload download>Take the shop along</Button>
		<FileButton label="File of a whole shop" accept=".zip,application/zip" ontake={take}
			>Bring a shop in</FileButton
		>
	</div>
</section>
