<script lang="ts" module>
	export type Grade = 'stops' | 'warns' | 'notes' | 'good' | 'unknown' | 'off' | 'empty' | 'open';
	const WORD: Record<Grade, string> = {
		stops: 'stops',
		warns: 'warns',
		notes: 'note',
		good: 'good',
		unknown: 'unknown',
		off: 'off',
		empty: 'empty',
		open: 'open'
	};
</script>

<script lang="ts">
	// A state is a shape, a word and a colour; this is the shape.
	interface Props {
		grade: Grade;
		size?: number;
		label?: string;
	}
	let { grade, size = 20, label }: Props = $props();
</script>

<svg
	viewBox="0 0 20 20"
	width={size}
	height={size}
	class="shrink-0"
	role="img"
	aria-label={label ?? WORD[grade]}
>
	{#if grade === 'stops'}
		<rect x="1.5" y="1.5" width="17" height="17" class="fill-over" />
		<rect x="4.5" y="8.2" width="11" height="3.6" class="fill-paper" />
	{:else if grade === 'warns'}
		<path d="M10 1 19 18H1Z" class="fill-none stroke-over" stroke-width="1.8" />
		<path d="M10 7v5M10 14v2" class="stroke-over" stroke-width="2" />
	{:else if grade === 'notes'}
		<circle cx="10" cy="10" r="3.4" class="fill-soft" />
	{:else if grade === 'good'}
		<path d="M3 10.5 8 15.5 17 4.5" class="fill-none stroke-sound" stroke-width="2.6" />
	{:else if grade === 'unknown'}
		<circle
			cx="10"
			cy="10"
			r="8"
			class="fill-none stroke-over"
			stroke-width="1.8"
			stroke-dasharray="3 2"
		/>
		<path
			d="M7.4 8a2.6 2.6 0 1 1 3.6 2.4c-.8.4-1 .8-1 1.6M10 13.6v1.8"
			class="fill-none stroke-over"
			stroke-width="1.8"
		/>
	{:else if grade === 'off'}
		<path
			d="M2 7 7 2M2 13 13 2M2 18 18 2M7 18 18 7M13 18l5-5"
			class="stroke-over"
			stroke-width="1.5"
		/>
	{:else}
		<circle cx="10" cy="10" r="7.5" class="fill-none stroke-soft" stroke-width="1.6" />
	{/if}
</svg>
