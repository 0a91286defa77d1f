<script lang="ts">
	// One finding, open to its reasons, with its cures as buttons.
	import { Button } from 'flowbite-svelte';
	import type { Cure, Finding } from '$lib/api/types.gen';
	import Mark from '$lib/ui/Mark.svelte';
	import Reasons from './Reasons.svelte';

	interface Props {
		finding: Finding;
		oncure?: (cure: Cure) => void;
	}
	let { finding, oncure }: Props = $props();
</script>

<li class="border-b border-line py-2" data-code={finding.code}>
	<details open={finding.severity === 'stops'}>
		<summary class="flex min-h-11 cursor-pointer items-start gap-2 py-1.5">
			<span class="mt-0.5"><Mark grade={finding.severity} /></span>
			<span><strong>{finding.severity}</strong> · {finding.says}</span>
		</summary>
		<div class="ps-7">
			<Reasons because={finding.because} />
			{#if finding.cures.length > 0}
				<p class="mt-2 text-soft">what would cure it</p>
				<ul class="mt-1 grid gap-1">
					{#each finding.cures as c (c.says)}
						<li>
							{#if c.moves?.length && oncure}
								<Button
									color="alternative"
									class="w-full justify-start text-left whitespace-normal"
									onclick={() => oncure(c)}>{c.says}</Button
								>
							{:else}
								<span class="block py-1">{c.says}</span>
							{/if}
						</li>
					{/each}
				</ul>
			{/if}
		</div>
	</details>
</li>
