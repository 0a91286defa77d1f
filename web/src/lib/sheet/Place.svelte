<script lang="ts">
	// The chosen socket: where it is, and the facts that few boards need.
	import { Button } from 'flowbite-svelte';
	import * as pick from './choices';
	import { useDraft } from './draft.svelte';
	import Field from './Field.svelte';

	let { id }: { id: string } = $props();
	const get = useDraft();
	const draft = $derived(get());
	const i = $derived(draft.sheet.sockets.findIndex((k) => k.id === id));
	const kind = $derived(draft.sheet.sockets[i]?.kind);

	function turn() {
		draft.change((s) => {
			const p = s.sockets[i]?.place;
			if (!p) return;
			[p.widthMM, p.heightMM] = [p.heightMM, p.widthMM];
			p.xMM = Math.max(0, Math.min(p.xMM, s.board.widthMM - p.widthMM));
			p.yMM = Math.max(0, Math.min(p.yMM, s.board.heightMM - p.heightMM));
		});
	}
</script>

{#if i >= 0}
	<h2>{id}</h2>
	<div class="grid grid-cols-2 gap-2">
		<div class="col-span-2">
			<Field at="/sockets/{i}/where" label="where, in words" max={120} />
		</div>
		<Field at="/sockets/{i}/place/xMM" label="from the left, mm" number />
		<Field at="/sockets/{i}/place/yMM" label="from the top, mm" number />
		<Field at="/sockets/{i}/place/widthMM" label="wide, mm" number />
		<Field at="/sockets/{i}/place/heightMM" label="high, mm" number />
		{#if kind === 'm2'}
			<Field at="/sockets/{i}/firstLane" label="first lane of its group" number />
			<Field at="/sockets/{i}/widthMM" label="room for cards, mm wide" choices={pick.WIDTH} />
			<Field at="/sockets/{i}/sataGen" label="SATA rate" choices={pick.SATA_GEN} />
			<Field at="/sockets/{i}/underOpening" label="under the card at opening" number />
			<Field at="/sockets/{i}/clearUnderCardMM" label="free below that card, mm" number />
		{:else if kind === 'sata' || kind === 'u2'}
			{#if !draft.sheet.bays?.length}
				<Field at="/sockets/{i}/thread" label="screws at the bay" choices={pick.THREAD} />
				<Field at="/sockets/{i}/leadEnd" label="room for a lead end" choices={pick.END} />
			{/if}
			{#if kind === 'u2'}
				<Field at="/sockets/{i}/group" label="lanes from" choices={pick.groups(draft.sheet)} />
				<Field at="/sockets/{i}/gen" label="PCIe Gen" choices={pick.GEN} />
				<Field at="/sockets/{i}/lanes" label="wired" choices={pick.LANES} />
			{/if}
		{/if}
	</div>
	<div class="mt-2 flex flex-wrap gap-2">
		<Button color="alternative" onclick={turn}>Turn it</Button>
	</div>
	<p class="mt-1 text-soft">
		Drag it on the board, or move it with the arrow keys when it has the focus: 1 mm, with Shift 5.
	</p>
{/if}
