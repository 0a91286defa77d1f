<script lang="ts">
	// Which cards a socket with this key takes, drawn with their notches.
	import { Label, Select } from 'flowbite-svelte';
	import { getAbortSignal } from 'svelte';
	import { api } from '$lib/api/client';
	import { refusal } from '$lib/api/refused';
	import type { Fit } from '$lib/api/types.gen';
	import Mark from '$lib/ui/Mark.svelte';
	import Notches from './Notches.svelte';
	import Pick from './Pick.svelte';

	let key = $state('M');
	let protocols = $state('pcie');
	let fits = $state.raw<readonly Fit[]>([]);
	let fault = $state('');
	$effect(() => {
		const [k, p] = [key, protocols];
		const signal = getAbortSignal();
		void api.keys(k, p, signal).then(
			(f) => {
				fits = f;
				fault = '';
			},
			(e: unknown) => {
				if (signal.aborted) return;
				fault = refusal(e).says;
			}
		);
	});
	const grade = {
		live: 'good',
		stopped: 'stops',
		unknown: 'unknown',
		off: 'off',
		free: 'empty'
	} as const;
</script>

<section aria-labelledby="keys-h" class="border-t border-line pt-3" data-ask="keys">
	<h2 id="keys-h">Which M.2 card goes into this socket?</h2>
	<div class="my-2 flex flex-wrap items-end gap-2">
		<Pick
			id="key"
			label="Key"
			items={['A', 'B', 'E', 'M'].map((k) => ({ value: k, name: k }))}
			bind:value={key}
		/>
		<div class="w-44">
			<Label for="protocols">It speaks</Label>
			<Select
				id="protocols"
				bind:value={protocols}
				placeholder=""
				items={[
					{ value: 'pcie', name: 'PCIe only' },
					{ value: 'sata', name: 'SATA only' },
					{ value: 'pcie,sata', name: 'PCIe or SATA' },
					{ value: '', name: 'not known' }
				]}
			/>
		</div>
		<Notches keys={[key]} socket label="Socket keyed {key}" />
	</div>
	{#if fault}<p class="text-over">{fault}</p>{/if}
	<ul aria-live="polite" class="min-h-[21rem]">
		{#each fits as f (f.card)}
			<li class="flex flex-wrap items-center gap-3 border-b border-line py-1.5">
				<Notches keys={f.keys} label="Card with notches {f.keys.join(' and ')}" />
				<Mark grade={grade[f.state]} label={f.state} />
				<span class="min-w-48 flex-1"><strong>{f.card}</strong><br />{f.says}</span>
			</li>
		{/each}
	</ul>
</section>
