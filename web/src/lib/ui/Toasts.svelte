<script lang="ts">
	import { atStep } from '$lib/ui/here.svelte';
	import Mark from './Mark.svelte';
	import { toasts } from './toasts.svelte';
</script>

<div
	role="status"
	aria-live="polite"
	class={[
		'no-print fixed left-4 z-50 grid gap-2',
		atStep() ? 'top-14' : 'bottom-4' // what is at the thumb stays free
	]}
	data-testid="toasts"
>
	{#each toasts.items as t (t.id)}
		<div
			role="group"
			class="flex max-w-lg items-center gap-3 rounded-lg border border-line bg-raised p-4 shadow-lg"
		>
			<Mark grade={t.level === 'done' ? 'good' : 'stops'} label={t.level} />
			<span class="text-base">{t.text}</span>
			<button
				class="size-11 shrink-0 rounded-md"
				aria-label="Dismiss"
				onclick={() => toasts.dismiss(t.id)}
			>
				<svg viewBox="0 0 20 20" class="mx-auto size-5 fill-none stroke-current stroke-2"
					><path d="M5 5l10 10M15 5L5 15" /></svg
				>
			</button>
		</div>
	{/each}
</div>
