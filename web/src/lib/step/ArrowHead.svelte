<script lang="ts">
	// The head of the arrows that say which way things move.
	let { id, size = 5 }: { id: string; size?: number } = $props();
</script>

<marker
	{id}
	viewBox="0 0 10 10"
	refX="8"
	refY="5"
	markerWidth={size}
	markerHeight={size}
	orient="auto-start-reverse"
>
	<path d="M0 0 10 5 0 10Z" class="fill-over" />
</marker>
