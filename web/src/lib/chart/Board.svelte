<script lang="ts">
	// The drawing of a machine's board: shores, ribbons, sockets, and a label to
	// each socket in the margin. The labels are the controls; the sockets on the
	// board answer to the pointer as well.
	import type { Attachment } from 'svelte/attachments';
	import { on } from 'svelte/events';
	import type { Offer, Resolved, Sheet, SocketState } from '$lib/api/types.gen';
	import Mark from '$lib/ui/Mark.svelte';
	import { LABEL, layoutChart, namesOnBoard, type Mark as Place } from './layout';

	interface Props {
		sheet: Sheet;
		resolved: Resolved;
		title: string;
		name: (item: string | undefined) => string | undefined;
		cardLength: (item: string | undefined) => number | undefined;
		chosen?: string;
		/** While something is picked up: what each socket would come to. */
		offers?: readonly Offer[] | null;
		onsocket?: (id: string) => void;
		/** Sockets can be moved on the board: where to, in millimetres. */
		onmove?: (id: string, xMM: number, yMM: number) => void;
		onhold?: () => void;
		onrelease?: () => void;
		/** Names stand on the board instead of labels in the margin, to write a sheet. */
		plain?: boolean;
		draggable?: (item: string | undefined) => Attachment<HTMLElement>;
	}
	let {
		sheet,
		resolved,
		title,
		name,
		cardLength,
		chosen,
		offers,
		onsocket,
		onmove,
		onhold,
		onrelease,
		plain = false,
		draggable
	}: Props = $props();
	const uid = $props.id();

	let width = $state(0);
	const chart = $derived(
		width > 0 ? layoutChart(sheet, resolved, width, 540, cardLength, plain) : null
	);

	const grade = (s: SocketState) =>
		(({ live: 'good', free: 'empty', off: 'off', stopped: 'stops', unknown: 'unknown' }) as const)[
			s.state
		];
	const offerAt = (id: string) => offers?.find((o) => o.socket === id);
	const offerGrade = (o: Offer) =>
		o.costs.length > 0 ? 'stops' : o.state === 'unknown' ? 'unknown' : 'good';

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

	function says(m: Place): string {
		const o = offerAt(m.socket.id);
		if (o) return o.says;
		return m.state.says;
	}
</script>

<div bind:clientWidth={width} class="relative" data-testid="chart">
	{#if chart}
		<svg
			viewBox="0 0 {chart.width} {chart.height}"
			width={chart.width}
			height={chart.height}
			class={['block select-none', onmove && 'touch-none']}
			role={plain ? 'group' : 'img'}
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
			{#each chart.ribbons as r (r.id)}
				<path d={r.d} class="fill-none stroke-line" stroke-width={r.wired + 2} />
				<path d={r.d} class="fill-none stroke-raised" stroke-width={r.wired} />
				{#if r.flows > 0}
					<path
						d={r.d}
						class="fill-none transition-[stroke-width] duration-200"
						stroke-width={r.flows}
						stroke="var(--water-{r.depth})"
						stroke-opacity={r.idle ? 0.55 : 1}
					/>
				{/if}
			{/each}
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
					{...plain ? asButton(m) : {}}
				>
					<rect
						x={m.box.x}
						y={m.box.y}
						width={m.box.w}
						height={m.box.h}
						class={['fill-paper', chosen === m.socket.id ? 'stroke-over' : 'stroke-ink']}
						stroke-width={chosen === m.socket.id ? 3 : 1.2}
						stroke-dasharray={m.state.item || m.state.state === 'off' ? undefined : '4 3'}
					/>
					{#if m.card}
						<rect
							x={m.card.x + 2}
							y={m.card.y + 2}
							width={Math.max(2, m.card.w - 4)}
							height={Math.max(2, m.card.h - 4)}
							class={m.state.state === 'live' ? 'fill-ink' : 'fill-soft'}
							rx="1.5"
						/>
						{#if m.card.h > 22 && m.card.w > 100}
							<text
								x={m.card.x + m.card.w / 2}
								y={m.card.y + m.card.h / 2 + 5}
								text-anchor="middle"
								class="fill-paper text-base">{name(m.state.item)}</text
							>
						{/if}
					{/if}
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
			{#if plain}
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
			{:else if !chart.narrow}
				{#each chart.marks as m (m.socket.id)}
					<path d={m.leader} class="pointer-events-none fill-none stroke-soft" stroke-width="1" />
					<circle cx={m.dot.x} cy={m.dot.y} r="2.5" class="pointer-events-none fill-ink" />
				{/each}
			{/if}
		</svg>
		{#if !plain}<ul class={chart.narrow ? 'mt-2 grid gap-1' : ''} aria-label="Sockets">
				{#each chart.marks as m (m.socket.id)}
					{@const item = name(m.state.item)}
					{@const offer = offerAt(m.socket.id)}
					<li
						class={chart.narrow ? '' : 'absolute'}
						style:top={chart.narrow ? undefined : `${m.labelY}px`}
						style:left={chart.narrow || m.side === 'right' ? undefined : '0'}
						style:right={chart.narrow || m.side === 'left' ? undefined : '0'}
						style:width={chart.narrow ? undefined : `${LABEL.width}px`}
					>
						<button
							data-socket={m.socket.id}
							class={[
								'w-full rounded-sm border px-2 text-left leading-tight',
								chosen === m.socket.id
									? 'border-over bg-overtint'
									: 'border-line bg-paper hover:bg-water-1',
								offers && !offer && 'border-dashed'
							]}
							style:height="{LABEL.height}px"
							aria-pressed={chosen === m.socket.id}
							title={offer?.costs.join('\n')}
							onclick={() => onsocket?.(m.socket.id)}
							{@attach draggable?.(m.state.item)}
						>
							<span class="flex items-center gap-1.5">
								<Mark
									grade={offer ? offerGrade(offer) : grade(m.state)}
									size={16}
									label={offer ? (offer.costs.length ? 'stops' : 'would work') : m.state.state}
								/>
								<strong>{m.socket.id}</strong>
								<span class="truncate">{item ?? ''}</span>
							</span>
							<span class={['block truncate', offer?.costs.length ? 'text-over' : 'text-soft']}
								>{offers && !offer ? '' : says(m)}</span
							>
						</button>
					</li>
				{/each}
			</ul>{/if}
	{/if}
</div>
