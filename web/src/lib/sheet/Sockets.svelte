<script lang="ts">
	// The sockets of one kind, in a table that asks what matters for that kind.
	import type { Socket } from '$lib/api/types.gen';
	import * as pick from './choices';
	import { useDraft } from './draft.svelte';
	import { OF_BAY } from './bays';
	import Bays from './Bays.svelte';
	import FactTable, { type Column } from './FactTable.svelte';

	interface Props {
		kind: 'm2' | 'pcie' | 'sata' | 'memory' | 'usb';
		chosen?: string;
		onchoose: (id: string) => void;
	}
	let { kind, chosen, onchoose }: Props = $props();
	const get = useDraft();
	const draft = $derived(get());
	const s = $derived(draft.sheet);

	const kinds = {
		m2: ['m2'],
		pcie: ['pcie'],
		sata: ['sata', 'u2'],
		memory: ['dimm', 'sodimm'],
		usb: ['usb']
	} as const;
	const rows = $derived(
		s.sockets.flatMap((k, i) => ((kinds[kind] as readonly string[]).includes(k.kind) ? [i] : []))
	);
	const groupColumn: Column = $derived({
		head: 'lanes from',
		field: '/group',
		choices: pick.groups(s)
	});
	const root: Column = $derived({ head: 'hangs on', field: '/root', choices: pick.roots(s) });
	/** Bays that are listed apart are described there. */
	const ownBays = $derived(
		!s.bays?.length ||
			s.sockets.some((k) => k.kind === 'sata' && OF_BAY.some((f) => k[f] !== undefined))
	);
	const ofBay: readonly Column[] = [
		{ head: 'bay takes', field: '/drives', choices: pick.TAKES },
		{ head: 'as tall as, mm', field: '/bayHeightMM', number: true },
		{ head: 'held by', field: '/holder', choices: pick.HOLDER, rare: true },
		{ head: 'is there', field: '/holderThere', choices: pick.ANSWER, rare: true },
		{ head: 'power plug', field: '/power', choices: pick.PLUG, rare: true }
	];
	const columns: readonly Column[] = $derived(
		{
			m2: [
				groupColumn,
				{ head: 'speaks', field: '/protocols', choices: pick.SPEAKS },
				{ head: 'PCIe Gen', field: '/gen', choices: pick.GEN },
				{ head: 'wired', field: '/lanes', choices: pick.LANES },
				{ head: 'key', field: '/key', choices: pick.KEY },
				{ head: 'posts at, mm', field: '/lengthsMM', choices: pick.LENGTHS },
				{ head: 'contacts at', field: '/contacts', choices: pick.EDGE, rare: true },
				{ head: 'heatsink', field: '/heatsink', choices: pick.ANSWER, rare: true },
				{ head: 'free above, mm', field: '/clearTopMM', number: true, rare: true },
				{ head: 'free below, mm', field: '/clearBottomMM', number: true, rare: true }
			],
			pcie: [
				groupColumn,
				{ head: 'PCIe Gen', field: '/gen', choices: pick.GEN },
				{ head: 'wired', field: '/lanes', choices: pick.LANES },
				{ head: 'long', field: '/physicalLanes', choices: pick.LONG },
				{ head: 'first lane', field: '/firstLane', number: true, rare: true },
				{ head: 'can be split', field: '/splits', choices: pick.SPLITS },
				{ head: 'open end', field: '/openEnded', choices: pick.ANSWER, rare: true },
				{ head: 'rear opening', field: '/opening', number: true, rare: true }
			],
			sata: [
				root,
				{ head: 'rate', field: '/sataGen', choices: pick.SATA_GEN },
				{ head: 'data lead', field: '/lead', choices: pick.ANSWER },
				...(ownBays ? ofBay : [])
			],
			memory: [
				{ head: 'form', field: '/kind', choices: pick.MODULE },
				{ head: 'channel', field: '/channel' },
				{ head: 'free under the cooler, mm', field: '/clearTopMM', number: true }
			],
			usb: [root, { head: 'fastest mode', field: '/usb', choices: pick.USB }]
		}[kind]
	);
	const words = {
		m2: 'M.2 socket',
		pcie: 'PCIe slot',
		sata: 'SATA port',
		memory: 'memory slot',
		usb: 'USB port'
	};

	/** What is new claims nothing: it hangs on what there is one of, and the rest is asked. */
	function add(k: 'm2' | 'pcie' | 'sata' | 'memory' | 'usb' | 'u2') {
		const only = <T extends { id: string }>(list: readonly T[]) =>
			list.length === 1 ? list[0]!.id : undefined;
		const group = only(s.groups);
		const root = only(s.roots);
		const cpu = only(s.roots.filter((r) => r.kind === 'cpu'));
		const form = s.sockets.find((x) => x.kind === 'sodimm') ? 'sodimm' : 'dimm';
		const fresh = {
			m2: [{ id: 'M2_', kind: 'm2', group }, 80, 22],
			pcie: [{ id: 'PCIE', kind: 'pcie', group, protocols: ['pcie'] }, 39, 8],
			sata: [{ id: 'SATA', kind: 'sata', root, protocols: ['sata'] }, 14, 7],
			u2: [{ id: 'U2_', kind: 'u2', group, drives: ['u2'] }, 16, 8],
			usb: [{ id: 'USB', kind: 'usb', root, protocols: ['usb'] }, 14, 7],
			memory:
				form === 'dimm'
					? [{ id: 'DIMM', kind: 'dimm', root: cpu }, 7, 133.4]
					: [{ id: 'SODIMM', kind: 'sodimm', root: cpu }, 68, 9]
		}[k] as [Omit<Socket, 'place'>, number, number];
		const [socket, w, h] = fresh;
		onchoose(draft.add({ ...socket, id: draft.free('sockets', socket.id) }, w, h));
	}
</script>

<FactTable
	caption="{words[kind]}s"
	list="sockets"
	{rows}
	{columns}
	{chosen}
	{onchoose}
	add="Add {kind === 'm2' ? 'an' : 'a'} {words[kind]}"
	onadd={() => add(kind)}
/>
{#if kind === 'sata'}
	<button
		class="mt-2 min-h-11 rounded-md border border-line px-4 hover:bg-water-1"
		onclick={() => add('u2')}>Add a U.2 port</button
	>
	<Bays />
{/if}
