<script lang="ts">
	// Where lanes start, what they hang on, and how they are dealt.
	import type { Group, Root } from '$lib/api/types.gen';
	import * as pick from './choices';
	import { useDraft } from './draft.svelte';
	import FactTable from './FactTable.svelte';

	const get = useDraft();
	const draft = $derived(get());
	const s = $derived(draft.sheet);
	function addRoot() {
		draft.change((x) => {
			const id = draft.free('roots', 'chipset');
			x.roots.push({
				id,
				name: 'chipset',
				kind: 'chipset',
				place: { xMM: 5, yMM: 5, widthMM: 24, heightMM: 24 },
				uplink: { to: x.roots.length === 1 ? x.roots[0]!.id : undefined }
			} as Root);
		});
	}
	function addGroup() {
		draft.change((x) =>
			x.groups.push({
				id: draft.free('groups', 'lanes-'),
				root: x.roots.length === 1 ? x.roots[0]!.id : undefined
			} as Group)
		);
	}
	function addProcessor() {
		draft.change((x) => {
			x.processors ??= [];
			x.processors.push({ id: draft.free('processors', 'processor-'), name: 'a processor' });
		});
	}
</script>

<h3>Roots</h3>
<p class="text-soft">
	The processor, and each chipset with the link it hangs on. Everything behind an uplink shares it.
</p>
<FactTable
	caption="Roots"
	each
	list="roots"
	rows={s.roots.map((_, i) => i)}
	name="short name"
	columns={[
		{ head: 'called', field: '/name' },
		{
			head: 'uplink to',
			field: '/uplink/to',
			choices: [{ value: undefined, name: 'none' }, ...pick.roots(s)]
		},
		{ head: 'uplink Gen', field: '/uplink/gen', choices: pick.GEN },
		{ head: 'uplink lanes', field: '/uplink/lanes', choices: pick.LANES }
	]}
	add="Add a chipset"
	onadd={addRoot}
/>
<h3 class="mt-4">Groups of lanes</h3>
<p class="text-soft">
	{#each draft.check?.groups ?? [] as g (g)}{g}.
	{/each}
</p>
<FactTable
	caption="Groups of lanes"
	each
	list="groups"
	rows={s.groups.map((_, i) => i)}
	name="short name"
	columns={[
		{ head: 'of', field: '/root', choices: pick.roots(s) },
		{ head: 'lanes', field: '/lanes', number: true }
	]}
	add="Add a group"
	onadd={addGroup}
/>
<h3 class="mt-4">Processors the board takes</h3>
<p class="text-soft">Only where it matters which one is fitted: rules say what differs.</p>
<FactTable
	caption="Processors"
	each
	list="processors"
	rows={(s.processors ?? []).map((_, i) => i)}
	name="short name"
	columns={[
		{ head: 'called', field: '/name' },
		{ head: 'brings graphics', field: '/graphics', choices: pick.ANSWER },
		{ head: 'bytes a module', field: '/moduleBytes', number: true },
		{ head: 'bytes in all', field: '/totalBytes', number: true }
	]}
	add="Add a processor"
	onadd={addProcessor}
/>
