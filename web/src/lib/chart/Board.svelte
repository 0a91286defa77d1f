<script lang="ts">
	// The board to scale, with the names of its sockets: to write a sheet on.
	import type { Attachment } from 'svelte/attachments';
	import { on } from 'svelte/events';
	import type { Resolved, Sheet } from '$lib/api/types.gen';
	import Ribbons from './Ribbons.svelte';
	import { layoutChart, namesOnBoard, type Mark as Place } from './layout';

	interface Props {
		sheet: Sheet;
		resolved: Resolved;
		title: string;
		chosen?: string;
		onsocket?: (id: string) => void;
		/** Sockets can be moved on the board: where to, in millimetres. */
		onmove?: (id: string, xMM: number, yMM: number) => void;
		onhold?: () => void;
		onrelease?: () => void;
	}
	let { sheet, resolved, title, chosen, onsocket, onmove, onhold, onrelease }: Props = $props();
	const uid = $props.id();

	let width = $state(0);
	const chart = $derived(width > 0 ? layoutChart(sheet, resolved, width) : null);
	const socketAt = (e: Event) =>
		(e.target as Element).closest('[data-socket]')?.getAttribute('data-socket');
	const placeOf = (id: string) => sheet.sockets.find((k) => k.id === id)?.place;

	const pointer: Attachment<SVGElement> = (svg) => {
		const el = svg as unknown as HTMLElement; // for the types of its events, which are the same
		let drag: { id: string; x: number; y: number; xMM: number; yMM: number } | null = null;
		let moved = false;
		const off = [
			on(el, 'click', (e) => {
				const id = socketAt(e);
				if (id && !moved) onsocket?.(id);
				moved = false;
			}),
			on(el, 'pointerdown', (e) => {
				const id = socketAt(e);
				const place = id && placeOf(id);
				if (!onmove || !id || !place || e.button !== 0) return;
				drag = { id, x: e.clientX, y: e.clientY, xMM: place.xMM, yMM: place.yMM };
			}),
			on(el, 'pointermove', (e) => {
				if (!drag || !chart) return;
				const dx = (e.clientX - drag.x) / chart.scale;
				const dy = (e.clientY - drag.y) / chart.scale;
				if (!moved && Math.hypot(e.clientX - drag.x, e.clientY - drag.y) < 4) return;
				if (!moved) {
					el.setPointerCapture(e.pointerId); // from here on only: a captured click names no socket
					onhold?.();
				}
				moved = true;
				onmove?.(drag.id, Math.round(drag.xMM + dx), Math.round(drag.yMM + dy));
			}),
			...(['pointerup', 'pointercancel'] as const).map((kind) =>
				on(el, kind, () => {
					if (!drag) return;
					drag = null;
					if (moved) onrelease?.();
				})
			)
		];
		return () => off.forEach((f) => f());
	};

	/** Without labels in the margin the socket itself is what can be reached. */
	const asButton = (m: Place) => ({
		role: 'button',
		tabindex: 0,
		'aria-label': `${m.socket.id}, ${m.state.says}`,
		'aria-pressed': chosen === m.socket.id,
		onkeydown: (e: KeyboardEvent) => nudge(e, m.socket.id)
	});

	/** Arrow keys move the socket in focus; Enter and the space bar choose it. */
	function nudge(e: KeyboardEvent, id: string) {
		if (e.key === 'Enter' || e.key === ' ') {
			e.preventDefault();
			onsocket?.(id);
			return;
		}
		const step = e.shiftKey ? 5 : 1;
		const by = {
			ArrowLeft: [-step, 0],
			ArrowRight: [step, 0],
			ArrowUp: [0, -step],
			ArrowDown: [0, step]
		}[e.key];
		const place = placeOf(id);
		if (!onmove || !by || !place) return;
		e.preventDefault();
		onhold?.();
		onmove(id, place.xMM + by[0]!, place.yMM + by[1]!);
		onrelease?.();
	}
</script>

<div bind:clientWidth={width} class="relative" data-testid="board">
	{#if chart}
		<svg
			viewBox="0 0 {chart.width} {chart.height}"
			width={chart.width}
			height={chart.height}
			class={['block select-none', onmove && 'touch-none']}
			role="group"
			aria-label={title}
			{@attach pointer}
		>
			<defs>
				<pattern
					id="{uid}hatch"
					width="7"
					height="7"
					patternUnits="userSpaceOnUse"
					patternTransform="rotate(45)"
				>
					<path d="M0 0v7" class="stroke-over" stroke-width="3" />
				</pattern>
			</defs>
			<rect
				x={chart.board.x}
				y={chart.board.y}
				width={chart.board.w}
				height={chart.board.h}
				class="fill-raised stroke-line"
				rx="3"
			/>
			<Ribbons ribbons={chart.ribbons} />
			{#each chart.uplinks as u (u.id)}
				<path d={u.d} class="fill-none stroke-ink" stroke-width={u.wired + 2} />
				<path d={u.d} class="fill-none" stroke-width={u.wired} stroke="var(--water-{u.depth})" />
				<text x={u.x} y={u.y + 20} class="fill-ink text-base" text-anchor="end">{u.text}</text>
			{/each}
			{#each chart.roots as { root, box } (root.id)}
				<rect
					x={box.x}
					y={box.y}
					width={box.w}
					height={box.h}
					rx={Math.min(box.w, box.h) * 0.16}
					class="fill-land stroke-coast"
					stroke-width="2.5"
				/>
				<text
					x={box.x + box.w / 2}
					y={box.y + box.h / 2 + 5}
					text-anchor="middle"
					class="fill-ink text-base"
					textLength={box.w < 70 ? box.w - 8 : undefined}
					lengthAdjust="spacingAndGlyphs">{root.name}</text
				>
			{/each}
			{#each chart.marks as m (m.socket.id)}
				<g
					data-socket={m.socket.id}
					class={['outline-over', onsocket && 'cursor-pointer']}
					{...asButton(m)}
				>
					<rect
						x={m.box.x}
						y={m.box.y}
						width={m.box.w}
						height={m.box.h}
						class={[
							m.state.item ? 'fill-soft' : 'fill-paper',
							chosen === m.socket.id ? 'stroke-over' : 'stroke-ink'
						]}
						stroke-width={chosen === m.socket.id ? 3 : 1.2}
						stroke-dasharray={m.state.item || m.state.state === 'off' ? undefined : '4 3'}
					/>
					{#if m.state.state === 'off' || m.state.state === 'stopped'}
						<rect
							x={m.box.x - 3}
							y={m.box.y - 3}
							width={m.box.w + 6}
							height={m.box.h + 6}
							fill="url(#{uid}hatch)"
							class="stroke-over"
							stroke-width="1.5"
						/>
					{/if}
				</g>
			{/each}
			{#each namesOnBoard(chart) as at (at.text)}
				<text
					x={at.x}
					y={at.y}
					dy="0.35em"
					text-anchor="middle"
					transform={at.turn ? `rotate(${at.turn} ${at.x} ${at.y})` : undefined}
					class="pointer-events-none fill-ink stroke-raised text-base"
					stroke-width="4"
					paint-order="stroke">{at.text}</text
				>
			{/each}
		</svg>
	{/if}
</div>
