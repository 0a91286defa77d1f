<script lang="ts">
	// The machine with its side off. Everything is drawn where it stands, and what is drawn
	// is what one presses: a control to each socket, over shores, ribbons and leads.
	import type { Attachment } from 'svelte/attachments';
	import { on } from 'svelte/events';
	import type { Changed, Offer, Resolved, Sheet, SocketState } from '$lib/api/types.gen';
	import Mark from '$lib/ui/Mark.svelte';
	import { broken, draw, short, toward, type Control } from './drawing';
	import { command } from '$lib/ui/commands.svelte';
	import Fetched from '$lib/ui/Fetched.svelte';
	import Turn from '$lib/ui/Turn.svelte';
	import Ribbons from './Ribbons.svelte';
	import { Zoom } from './zoom.svelte';

	interface Props {
		sheet: Sheet;
		resolved: Resolved;
		title: string;
		name: (item: string | undefined) => string | undefined;
		chosen?: string;
		/** What the last change made different. */
		changed?: readonly Changed[];
		/** While something is picked up: what each socket would come to. */
		offers?: readonly Offer[] | null;
		onsocket?: (id: string) => void;
		draggable?: (item: string | undefined) => Attachment<HTMLElement>;
	}
	let {
		sheet,
		resolved,
		title,
		name,
		chosen,
		changed = [],
		offers,
		onsocket,
		draggable
	}: Props = $props();
	const uid = $props.id();

	const NARROW = 700; // px: below, a list beside a small picture
	let width = $state(0);
	let height = $state(560);
	const chart = $derived(
		width >= NARROW
			? draw(
					sheet,
					resolved,
					{
						name,
						root: atRoot,
						longest: Math.max(0, ...resolved.sockets.map((s) => name(s.item)?.length ?? 0))
					},
					width,
					height
				)
			: null
	);
	const zoom = new Zoom(() => ({ width: chart?.width ?? 1, height: chart?.height ?? 1 }));
	$effect(() => {
		if (!chart) return zoom.fit();
		const off = [
			command('zoom in', zoom.in),
			command('zoom out', zoom.out),
			command('zoom fit', zoom.fit)
		];
		return () => off.forEach((f) => f());
	});

	/** What stands at a root: what memory comes to, or what its uplink is and how full. */
	function atRoot(id: string): string[] {
		const u = resolved.uplinks.find((x) => x.root === id);
		if (u) return [...broken(u.link, 150), ...broken(u.use, 150)];
		const m = resolved.memory;
		return m.channels.length > 0
			? [m.total, m.speed].filter(Boolean).flatMap((t) => broken(t, 120))
			: [];
	}
	const full = (root: string) => resolved.uplinks.find((u) => u.root === root)?.full;

	/** As high as what is left of the window, so that nothing has to be scrolled to. */
	const fill: Attachment<HTMLElement> = (el) => {
		const measure = () => {
			const top = el.getBoundingClientRect().top + window.scrollY;
			const dock = window.innerWidth < 1024 ? 300 : 0; // at the thumb, over the foot of the page
			height = Math.max(460, window.innerHeight - top - 20 - dock);
		};
		const seen = new ResizeObserver(measure); // what stands above may wrap
		if (el.parentElement) seen.observe(el.parentElement);
		const off = on(window, 'resize', measure);
		return () => {
			seen.disconnect();
			off();
		};
	};

	const grade = (s: SocketState) =>
		(({ live: 'good', free: 'empty', off: 'off', stopped: 'stops', unknown: 'unknown' }) as const)[
			s.state
		];
	const offerAt = (id: string) => offers?.find((o) => o.socket === id);
	/** It does not take what is picked up, and cannot be pressed by accident. */
	const shut = (id: string) => offers != null && !offerAt(id);
	const press = (id: string) => {
		if (!shut(id)) onsocket?.(id);
	};
	const turned = (id: string) => changed.find((c) => c.socket === id);
	const TURN = { in: 'new', out: 'out', better: 'more', worse: 'less' } as const;
	const rank = (o: Offer) => (offers ?? []).indexOf(o) + 1;
	const offerGrade = (o: Offer) =>
		o.costs.length > 0 ? 'stops' : o.state === 'unknown' ? 'unknown' : 'good';
	const says = (id: string, s: SocketState) => offerAt(id)?.says ?? s.says;

	/** On a narrow screen: the sockets as a list, in the order of the board. */
	const listed = $derived(
		sheet.sockets
			.flatMap((k) => [k, ...resolved.carried.filter((c) => c.id.startsWith(k.id + '/'))])
			.flatMap((socket) => {
				const state = resolved.sockets.find((s) => s.socket === socket.id);
				return state ? [{ socket, state }] : [];
			})
	);

	// One tab stop: arrow keys go from socket to socket, by where they stand.
	let at = $state<string>();
	const order = $derived(
		chart ? chart.controls.map((c) => c.socket.id) : listed.map((l) => l.socket.id)
	);
	const stop = $derived([at, chosen].find((id) => id && order.includes(id)) ?? order[0]);
	$effect(() => {
		if (offers?.[0]) at = offers[0].socket; // the best first
	});
	let list = $state<HTMLElement>();
	function walk(e: KeyboardEvent) {
		const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[
			e.key
		];
		const from = (e.target as HTMLElement).dataset.socket;
		if (!by || !from) return;
		e.preventDefault();
		const to = chart
			? toward(chart.controls, from, by[0]!, by[1]!)
			: order[order.indexOf(from) + by[0]! + by[1]!];
		list?.querySelector<HTMLElement>(`[data-socket="${to}"]`)?.focus();
	}

	/** The group that is open: somebody points at one of it, or has come to it by key. */
	let open = $state<string>();
	const group = $derived(offers ? undefined : chart?.groups.find((g) => g.id === open));
	const groupOf = (id: string) => chart?.groups.find((g) => g.sockets.includes(id))?.id;
	const OPENED = 300; // px, as wide as what a group tells is
</script>

{#snippet words(id: string, state: SocketState, c?: Control)}
	{@const item = name(state.item)}
	{@const offer = offerAt(id)}
	{@const tiny = c?.look === 'cell' || (c?.look === 'stick' && !item)}
	<span class={['flex gap-1.5', c?.look === 'stick' ? 'items-center' : 'items-start']}>
		<span class={['flex shrink-0 items-center gap-1', c && 'pt-0.5']}>
			{#if offer}<span
					class="grid size-5 place-items-center rounded-full bg-ink text-sm leading-none text-paper"
					aria-hidden="true">{rank(offer)}</span
				>{/if}
			<Mark
				grade={offer ? offerGrade(offer) : grade(state)}
				size={15}
				label={offer ? (offer.costs.length ? 'stops' : 'would work') : state.state}
			/>
		</span>
		<span class="min-w-0">
			<strong class={state.item ? '' : 'font-medium'}>{c ? short(id) : id}</strong>
			<span class="font-semibold">{item ?? ''}</span>
			{#if c?.look === 'header'}<span class="text-soft">{says(id, state)}</span>
			{:else if c && !item}
				{#if turned(id)?.left}<s class="text-soft">{turned(id)?.left}</s>{/if}
				<span class={tiny || turned(id)?.left ? 'sr-only' : 'text-soft'}
					>{offers && !offer ? '' : (offer?.says ?? state.link?.text ?? '')}
					<span class="sr-only">{says(id, state)}</span></span
				>
			{/if}
		</span>
	</span>
	{#if !c || (item && c.look !== 'header')}
		<span
			class={[
				c?.look === 'stick' ? 'sr-only' : c ? 'block' : 'block truncate',
				offer?.costs.length ? 'text-over' : 'text-soft'
			]}>{offers && !offer ? '' : says(id, state)}</span
		>
	{/if}
{/snippet}

<div bind:clientWidth={width} class="relative" data-testid="chart" {@attach fill}>
	{#if chart}
		<div
			class={['relative overflow-clip', zoom.zoomed ? 'cursor-grab touch-none' : 'touch-pan-y']}
			style:height="{chart.height}px"
			{@attach zoom.window}
		>
			<div
				class="absolute inset-0 origin-top-left"
				style:transform={zoom.zoomed
					? `translate(${zoom.x}px, ${zoom.y}px) scale(${zoom.k})`
					: undefined}
			>
				<svg
					viewBox="0 0 {chart.width} {chart.height}"
					width={chart.width}
					height={chart.height}
					class="block select-none"
					role="img"
					aria-label={title}
				>
					<defs>
						<pattern
							id="{uid}hatch"
							width="7"
							height="7"
							patternUnits="userSpaceOnUse"
							patternTransform="rotate(45)"
						>
							<path d="M0 0v7" class="stroke-over" stroke-width="2.5" />
						</pattern>
					</defs>
					<rect
						x={chart.board.x}
						y={chart.board.y + 1}
						width={chart.board.w}
						height={chart.board.h - 1}
						class="fill-raised stroke-line"
						rx="3"
					/>
					{#each chart.leads as d (d)}
						<path {d} class="fill-none stroke-soft" stroke-width="2" />
					{/each}
					<Ribbons ribbons={chart.ribbons} />
					{#each chart.roots as r (r.root.id)}
						{#if r.uplink}
							<path d={r.uplink.d} class="fill-none stroke-ink" stroke-width={r.uplink.wired + 2} />
							<path
								d={r.uplink.d}
								class="fill-none"
								stroke-width={r.uplink.wired}
								stroke="var(--water-{r.uplink.depth})"
							/>
						{/if}
					{/each}
					{#each chart.roots as { root, box, says: lines } (root.id)}
						<rect
							x={box.x}
							y={box.y}
							width={box.w}
							height={box.h}
							rx={Math.min(box.w, box.h) * 0.14}
							class="fill-land stroke-coast"
							stroke-width="2"
						/>
						{#each [root.name, ...lines] as line, i (i)}
							<text
								x={box.x + box.w / 2}
								y={box.y + box.h / 2 + 5 + (i - lines.length / 2) * 19}
								text-anchor="middle"
								class={[
									'text-base',
									i > 0 && full(root.id) ? 'fill-over font-semibold' : 'fill-ink',
									i === 0 && lines.length > 0 && 'font-semibold'
								]}>{line}</text
							>
						{/each}
					{/each}
					{#each chart.frames as f (f.id)}
						<rect
							x={f.box.x}
							y={f.box.y}
							width={f.box.w}
							height={f.box.h}
							rx="3"
							class="fill-water-1 stroke-ink"
							stroke-width="1.2"
						/>
					{/each}
					{#each chart.ports as p (p.id)}
						<g data-socket={p.id}>
							<rect
								x={p.box.x}
								y={p.box.y}
								width={p.box.w}
								height={p.box.h}
								rx="2"
								class={['fill-water-1', chosen === p.id ? 'stroke-over' : 'stroke-ink']}
								stroke-width={chosen === p.id ? 2.5 : 1.2}
							/>
							<text
								x={p.box.x + p.box.w / 2}
								y={p.box.y + p.box.h / 2 + 5}
								text-anchor="middle"
								class="fill-ink text-base">{p.id}</text
							>
						</g>
					{/each}
					{#each chart.groups as g (g.id)}
						{#if g.bracket}<path d={g.bracket} class="fill-none stroke-soft" />{/if}
						<text
							data-label={g.id}
							x={g.label.x + g.label.w / 2}
							y={g.label.y + 15}
							text-anchor="middle"
							class={['text-base', open === g.id ? 'fill-ink font-semibold' : 'fill-soft']}
							>{g.name}</text
						>
					{/each}
					{#each chart.bays as b (b.name)}
						<rect
							x={b.box.x + 0.5}
							y={b.box.y + 0.5}
							width={b.box.w - 1}
							height={b.box.h - 1}
							rx="2"
							class="fill-none stroke-line"
							stroke-dasharray="4 3"
						/>
						<text x={b.box.x + 10} y={b.box.y + b.box.h / 2 + 5} class="fill-soft text-base"
							>{b.name}, free</text
						>
					{/each}
				</svg>
				<Turn>
					<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
					<ul aria-label="Sockets" bind:this={list} onkeydown={walk}>
						{#each chart.controls as c (c.socket.id)}
							{@const offer = offerAt(c.socket.id)}
							{@const dead = c.state.state === 'off' || c.state.state === 'stopped'}
							<li
								class="absolute"
								style:top="{c.box.y}px"
								style:left="{c.box.x}px"
								style:width="{c.box.w}px"
								style:height="{c.box.h}px"
								onpointerenter={() => (open = groupOf(c.socket.id))}
								onpointerleave={() => (open = undefined)}
							>
								<button
									data-socket={c.socket.id}
									class={[
										'relative size-full overflow-hidden text-left leading-[19px]',
										c.look === 'stick' && 'py-1.5 text-center [writing-mode:vertical-rl]',
										c.look === 'cell' ? 'rounded-xs px-1' : 'rounded-sm px-1.5 py-0.5',
										c.look === 'header' ? 'border-b' : 'border',
										chosen === c.socket.id
											? 'border-over bg-overtint'
											: c.state.item
												? c.look === 'header'
													? 'border-ink hover:bg-water-2'
													: 'border-ink bg-land hover:bg-water-2'
												: 'border-dashed border-soft bg-paper hover:bg-water-1',
										offer && !offer.costs.length && 'outline-3 outline-sound',
										turned(c.socket.id) && 'outline-3 outline-over outline-dashed',
										shut(c.socket.id) && 'cursor-not-allowed text-soft'
									]}
									aria-disabled={shut(c.socket.id) || undefined}
									aria-pressed={chosen === c.socket.id}
									title={[
										c.socket.id,
										name(c.state.item),
										says(c.socket.id, c.state),
										...(offer?.costs ?? []),
										turned(c.socket.id) && `was: ${turned(c.socket.id)?.was}`
									]
										.filter(Boolean)
										.join('\n')}
									tabindex={stop === c.socket.id ? 0 : -1}
									onfocus={() => {
										at = c.socket.id;
										open = groupOf(c.socket.id);
										if (zoom.zoomed) zoom.show(c.box);
									}}
									onblur={() => (open = undefined)}
									onclick={() => press(c.socket.id)}
									{@attach draggable?.(c.state.item)}
								>
									{@render words(c.socket.id, c.state, c)}
									{#if turned(c.socket.id) && c.look !== 'cell' && c.look !== 'stick'}
										<span
											class="absolute right-0 bottom-0 rounded-tl-sm bg-over px-1 text-sm text-paper"
											>{TURN[turned(c.socket.id)!.turn]}</span
										>
									{/if}
									{#if dead}
										<svg
											class="pointer-events-none absolute inset-0 size-full opacity-60"
											aria-hidden="true"
										>
											<rect width="5" height="100%" fill="url(#{uid}hatch)" />
											<rect
												width="100%"
												height="100%"
												class="fill-none stroke-over"
												stroke-width="2.5"
											/>
										</svg>
									{/if}
								</button>
							</li>
						{/each}
					</ul>
				</Turn>
				{#if group}
					{@const { x, y, to } = group.opens}
					<!-- Each socket says the same itself, to those who hear the page. -->
					<ul
						class="pointer-events-none absolute z-10 border border-ink bg-paper px-2 py-1 leading-tight shadow"
						style:width="{OPENED}px"
						style:left="{Math.max(
							0,
							Math.min(chart.width - OPENED, to === 'left' ? x - OPENED : x)
						)}px"
						style:top="{Math.min(y, chart.height - group.sockets.length * 40 - 10)}px"
						aria-hidden="true"
						data-testid="opened"
					>
						{#each group.sockets as id (id)}
							{@const s = resolved.sockets.find((x) => x.socket === id)}
							{#if s}
								<li class="flex gap-1.5 py-0.5">
									<span class="mt-0.5"><Mark grade={grade(s)} size={15} /></span>
									<span
										><strong>{id}</strong>
										{name(s.item) ?? ''} <span class="text-soft">{s.says}</span></span
									>
								</li>
							{/if}
						{/each}
					</ul>
				{/if}
			</div>
		</div>
		<div class="absolute bottom-0 left-0 flex flex-col gap-1">
			{#each [['Zoom in', 'M4 10h12M10 4v12', zoom.in], ['Zoom out', 'M4 10h12', zoom.out]] as const as [label, d, press] (label)}
				<button
					class="size-8 rounded-sm border border-line bg-paper hover:bg-water-1"
					aria-label={label}
					onclick={press}
				>
					<svg viewBox="0 0 20 20" class="mx-auto size-4 fill-none stroke-current stroke-2"
						><path {d} /></svg
					>
				</button>
			{/each}
		</div>
		{#if zoom.zoomed}<Fetched load={() => import('./Overview.svelte')} also={{ chart, zoom }} />
		{/if}
	{:else if width > 0}
		<div bind:this={list}>
			<Fetched
				load={() => import('./Listed.svelte')}
				also={{
					sheet,
					resolved,
					title,
					listed,
					chosen,
					stop,
					words,
					offerAt,
					shut,
					onsocket: press,
					oncome: (id: string) => (at = id),
					onkeydown: walk,
					draggable
				}}
			/>
		</div>
	{/if}
</div>
