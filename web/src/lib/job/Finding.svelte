<script lang="ts">
	// One finding, open to its reasons, with its cures as buttons. Cures that differ
	// only in the socket stand on one line.
	import { Button } from 'flowbite-svelte';
	import type { Cure, Finding } from '$lib/api/types.gen';
	import Quiet from '$lib/ui/Quiet.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import Fetched from '$lib/ui/Fetched.svelte';
	import { factKey } from './missing';
	import Reasons from '$lib/ui/Reasons.svelte';

	interface Props {
		finding: Finding;
		oncure?: (cure: Cure) => void;
		/** Absent where nothing is to be accepted: of the machine as it came. */
		onaccept?: (accept: boolean) => void;
		/** Opens the short form of a piece of whose part something is missing. */
		onform?: (item: string) => void;
	}
	let { finding, oncure, onaccept, onform }: Props = $props();
	const incomplete = $derived([
		...new Set(
			(finding.missing ?? []).flatMap((m) => (m.item && !m.socket && m.ask ? [m.item] : []))
		)
	]);

	interface Line {
		readonly says: string;
		readonly choices: readonly { readonly name: string; readonly cure: Cure }[];
	}
	const lines = $derived(
		finding.cures.reduce<Line[]>((all, cure) => {
			const socket = cure.moves?.length === 1 ? cure.moves[0]?.socket : undefined;
			const shared = socket && cure.says.endsWith(' ' + socket);
			const says = shared ? cure.says.slice(0, -socket.length).trim() : cure.says;
			const choices = cure.moves?.length ? [{ name: shared ? socket : 'Do it', cure }] : [];
			const same = all.find((l) => l.says === says);
			if (!same) return [...all, { says, choices }];
			return all.map((l) => (l === same ? { says, choices: [...l.choices, ...choices] } : l));
		}, [])
	);
</script>

<li class="border-b border-line py-2" data-code={finding.code}>
	<details open={finding.severity === 'stops'}>
		<summary class="flex min-h-11 cursor-pointer items-start gap-2 py-1.5">
			<span class="mt-0.5"><Mark grade={finding.severity} /></span>
			<span
				><strong>{finding.severity}</strong> · {finding.says}{#if finding.accepted}<span
						class="text-soft"
					>
						· accepted by {finding.accepted}</span
					>{/if}</span
			>
		</summary>
		<div class="ps-7">
			<Reasons because={finding.because} />
			{#if finding.missing?.length}
				<p class="mt-2 text-soft">look, and say</p>
				<ul class="mt-1 grid gap-2">
					{#each finding.missing as m (factKey(m))}<li>
							<Fetched load={() => import('./LookUp.svelte')} also={{ missing: m }} />
						</li>{/each}
				</ul>
			{/if}
			{#if onform}
				{#each incomplete as item (item)}
					<Quiet onclick={() => onform(item)}
						>Fill in its short form{incomplete.length > 1 ? `: ${item}` : ''}</Quiet
					>
				{/each}
			{/if}
			{#if lines.length > 0}
				<p class="mt-2 text-soft">Ways to fix it</p>
				<ul class="mt-1 grid gap-1.5">
					{#each lines as l (l.says)}
						<li class="flex flex-wrap items-center gap-1.5">
							<span>{l.says}</span>
							{#each new Set(l.choices.flatMap((c) => c.cure.costs ?? [])) as cost (cost)}
								<span class="text-soft">({cost})</span>
							{/each}
							{#if oncure}
								{#each l.choices as c (c.name)}
									<Button
										color="alternative"
										class="px-3"
										aria-label={c.name === 'Do it' ? `Do it: ${c.cure.says}` : c.cure.says}
										onclick={() => oncure(c.cure)}>{c.name}</Button
									>
								{/each}
							{/if}
						</li>
					{/each}
				</ul>
			{/if}
			{#if onaccept && finding.severity === 'warns'}
				<Button
					color="alternative"
					class="mt-2"
					aria-label="{finding.accepted ? 'Accept it no longer' : 'Accept it'}: {finding.says}"
					onclick={() => onaccept(!finding.accepted)}
					>{finding.accepted ? 'Accept it no longer' : 'Accept it, knowing this'}</Button
				>
			{/if}
		</div>
	</details>
</li>
