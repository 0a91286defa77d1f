<script lang="ts">
	// Why a part is not in this socket in the best plan.
	import { Select } from 'flowbite-svelte';
	import { refusal } from '$lib/api/refused';
	import type { Planner } from './planner.svelte';
	import { useSession } from './session.svelte';

	let { planner, socket }: { planner: Planner; socket: string } = $props();
	const get = useSession();
	const session = $derived(get());
	const uid = $props.id();
	let asked = $state('');
	let says = $state('');
	const others = $derived(
		session.job.items.filter(
			(i) =>
				!session.part(i.part)?.fitting &&
				!session.job.planned.placements.some((p) => p.item === i.id && p.socket === socket)
		)
	);

	async function ask(item: string) {
		asked = item;
		says = '';
		if (!item) return;
		const about = socket;
		try {
			const got = await planner.whyNot(item, about);
			if (asked === item && socket === about) says = got;
		} catch (e) {
			says = refusal(e).says;
		}
	}
</script>

<div class="my-2 grid gap-1">
	<label for={uid}>Why not here?</label>
	<Select
		id={uid}
		value={asked}
		placeholder="choose a part"
		items={others.map((i) => ({
			value: i.id,
			name: `${session.partOf(i.id)?.name ?? i.id} ${i.serial ?? ''}`
		}))}
		onchange={(e) => ask(e.currentTarget.value)}
	/>
	<p aria-live="polite" data-testid="why-not">{says}</p>
</div>
