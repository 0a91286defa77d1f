<script lang="ts">
	// The bays, where they are listed apart from the ports: a drive in one may hang on any port.
	import { Button } from 'flowbite-svelte';
	import type { Bay, Socket } from '$lib/api/types.gen';
	import * as pick from './choices';
	import { useDraft } from './draft.svelte';
	import FactTable, { type Column } from './FactTable.svelte';
	import { OF_BAY } from './bays';

	const get = useDraft();
	const draft = $derived(get());
	const bays = $derived(draft.sheet.bays ?? []);
	const columns: readonly Column[] = [
		{ head: 'leads from', field: '/ports', names: true },
		{ head: 'takes', field: '/drives', choices: pick.TAKES },
		{ head: 'as tall as, mm', field: '/bayHeightMM', number: true },
		{ head: 'held by', field: '/holder', choices: pick.HOLDER, rare: true },
		{ head: 'is there', field: '/holderThere', choices: pick.ANSWER, rare: true },
		{ head: 'screws', field: '/thread', choices: pick.THREAD, rare: true },
		{ head: 'power plug', field: '/power', choices: pick.PLUG, rare: true },
		{ head: 'lead end', field: '/leadEnd', choices: pick.END, rare: true },
		{ head: 'where', field: '/where', rare: true }
	];

	function add() {
		draft.change((s) => {
			s.bays = [...(s.bays ?? []), { id: draft.free('bays', 'bay-') }];
		});
	}

	/** What the ports say of their own bays becomes a list of bays, each reached by its port. */
	function apart() {
		draft.change((s) => {
			const list: Bay[] = [];
			for (const k of s.sockets) {
				if (k.kind !== 'sata') continue;
				const bay: Bay = { id: `bay-${list.length + 1}`, ports: [k.id] };
				for (const f of OF_BAY) {
					const said = k as unknown as Record<keyof Socket, unknown>;
					if (said[f] === undefined) continue;
					(bay as unknown as Record<string, unknown>)[f] = said[f];
					delete said[f];
				}
				list.push(bay);
			}
			s.bays = list;
		});
	}
</script>

<h2 class="mt-4">Bays</h2>
{#if bays.length === 0}
	<p class="text-soft">
		Each port says what its own bay takes. Where leads can go to other bays, or there are fewer bays
		than ports, list the bays by themselves.
	</p>
	<Button color="alternative" class="mt-2" onclick={apart}>List the bays apart</Button>
{:else}
	<FactTable
		caption="Bays"
		list="bays"
		rows={bays.map((_, i) => i)}
		{columns}
		add="Add a bay"
		onadd={add}
	/>
{/if}
