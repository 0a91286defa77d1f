<script lang="ts" generics="T extends string">
	// Tabs as the WAI-ARIA practices have them: one tab stop, arrow keys, Home and End. (Flowbite's
	// tabs do not answer to arrow keys.)
	import type { Snippet } from 'svelte';

	interface Props {
		label: string;
		tabs: readonly (readonly [T, string])[];
		now: T;
		/** What stands behind a tab's name. */
		note?: Snippet<[T]>;
		children: Snippet;
	}
	let { label, tabs, now = $bindable(), note, children }: Props = $props();
	const uid = $props.id();
	let bar: HTMLElement;

	function walk(e: KeyboardEvent) {
		const i = tabs.findIndex(([t]) => t === now);
		const to = {
			ArrowRight: (i + 1) % tabs.length,
			ArrowLeft: (i + tabs.length - 1) % tabs.length,
			Home: 0,
			End: tabs.length - 1
		}[e.key];
		if (to === undefined) return;
		e.preventDefault();
		now = tabs[to]![0];
		bar.querySelectorAll<HTMLElement>('[role=tab]')[to]?.focus();
	}
</script>

<div
	bind:this={bar}
	class="flex flex-wrap gap-x-1 border-b border-line"
	role="tablist"
	tabindex="-1"
	aria-label={label}
	onkeydown={walk}
>
	{#each tabs as [t, name] (t)}
		<button
			role="tab"
			id="{uid}{t}"
			aria-selected={now === t}
			aria-controls="{uid}panel"
			tabindex={now === t ? 0 : -1}
			class={[
				'min-h-11 border-b-4 px-3 hover:bg-water-1',
				now === t ? 'border-ink font-semibold' : 'border-transparent'
			]}
			onclick={() => (now = t)}>{name}{@render note?.(t)}</button
		>
	{/each}
</div>
<div
	id="{uid}panel"
	role="tabpanel"
	tabindex="-1"
	aria-labelledby="{uid}{now}"
	class="py-3 outline-none"
>
	{@render children()}
</div>
