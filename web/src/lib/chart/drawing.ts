// Pure geometry of the chart: the machine with its side off. From a sheet and what the core
// said of it to boxes and paths in pixels; nothing is judged here.
//
// The board is drawn by rows, top to bottom and left to right as its sockets lie, each as
// large as what stands in it needs: true places matter for finding a socket, true
// millimetres only where a step shows one. Drives stand in a strip beside the board, USB
// boxes outside its rear edge, cards where their slot is, with their positions on them.
import type { Resolved, Root, Sheet, Socket, SocketState } from '$lib/api/types.gen';

export interface Box {
	readonly x: number;
	readonly y: number;
	readonly w: number;
	readonly h: number;
}

/** How a control looks. */
export type Look = 'wide' | 'stick' | 'cell' | 'drive' | 'header';

/** The control of one socket, where what lies in it is drawn. */
export interface Control {
	readonly socket: Socket;
	readonly state: SocketState;
	readonly look: Look;
	readonly box: Box;
}

/** A card or box with positions: its outline, round its header and what lies on it. */
export interface Frame {
	readonly id: string;
	readonly box: Box;
	readonly outside: boolean;
}

export interface Ribbon {
	readonly id: string;
	readonly d: string;
	readonly wired: number; // px, the lanes laid on the board
	readonly flows: number; // px, the lanes in use or on offer
	readonly depth: number; // 1 to 6: generation, deeper is faster
	readonly idle: boolean; // nothing placed at its end
}

export interface RootMark {
	readonly root: Root;
	readonly box: Box;
	readonly uplink?: { readonly d: string; readonly wired: number; readonly depth: number };
	/** What stands in it below its name, a line each. */
	readonly says: readonly string[];
}

/** Sockets that are alike and stand together: the ports, the slots of a channel. */
export interface Group {
	readonly id: string;
	readonly name: string;
	readonly sockets: readonly string[];
	/** Where its name stands: the middle of a line of this width. */
	readonly label: Box;
	/** The line that holds it together, where it has one. */
	readonly bracket?: string;
	/** Where it opens: the corner of what is told of each, to this side and downwards. */
	readonly opens: { readonly x: number; readonly y: number; readonly to: 'left' | 'right' };
}

export interface Drawing {
	readonly width: number;
	readonly height: number;
	readonly board: Box;
	readonly controls: readonly Control[];
	readonly frames: readonly Frame[];
	readonly roots: readonly RootMark[];
	readonly ribbons: readonly Ribbon[];
	readonly leads: readonly string[];
	/** Ports whose drive stands elsewhere. */
	readonly ports: readonly { readonly id: string; readonly box: Box }[];
	readonly groups: readonly Group[];
	/** Bays in which nothing lies. */
	readonly bays: readonly { readonly name: string; readonly box: Box }[];
}

/** What the chart is told besides sheet and answer. */
export interface Told {
	readonly name: (item: string | undefined) => string | undefined;
	/** What stands at a root: what memory comes to, or what its uplink is and how full. */
	readonly root: (id: string) => readonly string[];
	/** The longest name of a piece: a free socket has room to say that it would turn it off. */
	readonly longest: number;
}

const LETTER = 8.5; // px, what a letter of 16 px text takes on the average, and a little
const LINE = 19; // px
const GAP = 6;
const PAD = 10;
const CELL = 26; // px, the height of a port's cell
const MARK = 24; // px, the state's shape and the space after it
const STICK = { least: 124, most: 214 } as const; // px, as long as a memory slot is drawn
const TRUNK = 40; // px left of a chipset, for the ribbons that leave it

const ROOM = ' Gen 4 x4, 7.88 GB/s'.length;
const TURNS_OFF = ' turns off '.length;
const MOST = 26; // letters: what is longer is in the list beside the chart

const wide = (text: string) => Math.ceil(text.length * LETTER);

/** A text in lines of a width, broken between words where it can be. */
export function broken(text: string, width: number): string[] {
	const room = Math.max(1, Math.floor(width / LETTER));
	const out: string[] = [];
	for (const word of text.split(' ')) {
		const last = out.at(-1);
		if (last !== undefined && last.length + 1 + word.length <= room)
			out[out.length - 1] += ' ' + word;
		else for (let i = 0; i === 0 || i < word.length; i += room) out.push(word.slice(i, i + room));
	}
	return out;
}

const lines = (text: string, width: number) => broken(text, width).length;

/** A thing to be placed: how large it is, and where everything on it stands from its corner. */
interface Sized {
	readonly w: number;
	readonly h: number;
	readonly controls: readonly Control[];
	readonly frames: readonly Frame[];
}

const moved = (s: Sized, x: number, y: number): Sized => ({
	...s,
	controls: s.controls.map((c) => ({ ...c, box: shift(c.box, x, y) })),
	frames: s.frames.map((f) => ({ ...f, box: shift(f.box, x, y) }))
});
const shift = (b: Box, x: number, y: number): Box => ({ ...b, x: b.x + x, y: b.y + y });

const holder = (id: string) => id.slice(0, Math.max(0, id.lastIndexOf('/')));

/** The size of sockets and of what lies in them. */
class Sizes {
	readonly #states: ReadonlyMap<string, SocketState>;
	readonly #kids: ReadonlyMap<string, readonly Socket[]>;
	constructor(
		resolved: Resolved,
		readonly told: Told
	) {
		this.#states = new Map(resolved.sockets.map((s) => [s.socket, s]));
		this.#kids = Map.groupBy(resolved.carried, (k) => holder(k.id));
	}
	state(k: Socket): SocketState {
		return (
			this.#states.get(k.id) ?? { socket: k.id, state: 'free', says: '', because: [] } // never: the core answers every socket
		);
	}
	kids = (k: Socket) => this.#kids.get(k.id) ?? [];

	/** One socket with what it holds, no wider than most. */
	of(k: Socket, most: number, look: Look = 'wide', outside = false): Sized {
		const state = this.state(k);
		const item = this.told.name(state.item);
		if (!item) {
			const cards = k.kind === 'm2' || k.kind === 'pcie';
			const offer = cards ? Math.max(ROOM, Math.min(MOST, TURNS_OFF + this.told.longest)) : 0; // for what a part would come to
			const w = Math.min(most, Math.max(64, MARK + (short(k.id).length + offer) * LETTER + 30));
			return {
				w,
				h: CELL,
				controls: [{ socket: k, state, look, box: { x: 0, y: 0, w, h: CELL } }],
				frames: []
			};
		}
		const title = `${short(k.id)} ${item}`;
		const w = Math.min(most, 250, Math.max(132, MARK + wide(title) + 16, wide(state.says) + 16));
		const h = 8 + LINE * (lines(title, w - MARK - 16) + lines(state.says, w - 16));
		const kids = this.kids(k);
		if (kids.length === 0)
			return {
				w,
				h,
				controls: [{ socket: k, state, look, box: { x: 0, y: 0, w, h } }],
				frames: []
			};
		return this.#card(k, state, w, most, outside);
	}

	/** A part with positions: its header, and the positions below it in columns. */
	#card(k: Socket, state: SocketState, least: number, most: number, outside: boolean): Sized {
		const inner = most - 2 * GAP;
		const kids = this.kids(k).map((c) => this.of(c, Math.min(inner, 250)));
		const column = Math.max(...kids.map((c) => c.w));
		const columns = Math.max(1, Math.min(kids.length, Math.floor((inner + GAP) / (column + GAP))));
		const w = Math.max(least, columns * (column + GAP) + GAP);
		const title = `${short(k.id)} ${this.told.name(state.item) ?? ''} ${state.says}`;
		const header = 8 + LINE * lines(title, w - MARK - 16);
		const cell = (w - GAP) / columns - GAP;
		let y = header + 2;
		const controls: Control[] = [
			{ socket: k, state, look: 'header', box: { x: 0, y: 0, w, h: header } }
		];
		const frames: Frame[] = [];
		for (let i = 0; i < kids.length; i += columns) {
			const row = kids.slice(i, i + columns);
			row.forEach((c, n) => {
				const at = moved(c, GAP + n * (cell + GAP), y);
				// A position is as wide as its column.
				controls.push(
					...at.controls.map((d) =>
						at.controls.length === 1 ? { ...d, box: { ...d.box, w: cell } } : d
					)
				);
				frames.push(...at.frames);
			});
			y += Math.max(...row.map((c) => c.h)) + GAP;
		}
		return {
			w,
			h: y,
			controls,
			frames: [{ id: k.id, box: { x: 0, y: 0, w, h: y }, outside }, ...frames]
		};
	}
}

/** The name of a socket by which it is called where it stands: a position by its number. */
export const short = (id: string) => (id.includes('/') ? id.slice(id.lastIndexOf('/')) : id);

/** Something that stands in a row of the board. */
interface Item {
	readonly root?: Root;
	readonly socket?: Socket;
	readonly size: { readonly w: number; readonly h: number };
	readonly xMM: number; // its left edge
	readonly wMM: number;
	readonly yMM: number; // its middle
	readonly from: number;
	readonly to: number;
	readonly sized?: Sized;
}
type Row = { items: Item[]; h: number };

const middle = (p: Socket['place']) => p.yMM + p.heightMM / 2;

/** Things that lie side by side on the board, as long as there is room. */
function rows(items: readonly Item[], room: number): Row[] {
	const out: Row[] = [];
	for (const it of [...items].sort((a, b) => a.yMM - b.yMM || a.xMM - b.xMM)) {
		const last = out.at(-1);
		const meets =
			last?.items.some((o) => it.from < o.to && o.from < it.to) &&
			last.items.every((o) => it.xMM >= o.xMM + o.wMM || o.xMM >= it.xMM + it.wMM);
		const used = last ? last.items.reduce((n, o) => n + o.size.w + 2 * GAP, 0) : 0;
		if (last && meets && used + it.size.w <= room) {
			last.items.push(it);
			last.h = Math.max(last.h, it.size.h);
		} else out.push({ items: [it], h: it.size.h });
	}
	for (const r of out) r.items.sort((a, b) => a.xMM - b.xMM);
	return out;
}

/** Where the items of a row begin: where they lie on the board, moved as far as they must be. */
function spread(row: Row, x0: number, room: number, boardMM: number): number[] {
	const xs: number[] = [];
	let free = x0;
	for (const it of row.items) {
		const x = Math.max(free, x0 + (it.xMM / boardMM) * room);
		xs.push(x);
		free = x + it.size.w + 2 * GAP;
	}
	let limit = x0 + room;
	for (let i = xs.length - 1; i >= 0; i--) {
		xs[i] = Math.min(xs[i]!, limit - row.items[i]!.size.w);
		limit = xs[i]! - 2 * GAP;
	}
	return xs;
}

/** The chart in a width; as high as is asked for where that is enough. */
export function draw(
	sheet: Sheet,
	resolved: Resolved,
	told: Told,
	width: number,
	height: number
): Drawing {
	const sizes = new Sizes(resolved, told);
	const lies = (k: Socket) => !!told.name(sizes.state(k).item);
	const of = (...kinds: Socket['kind'][]) => sheet.sockets.filter((k) => kinds.includes(k.kind));
	const usb = of('usb');
	const ports = of('sata', 'u2');
	const drives = ports.filter(lies);
	const emptyBays = sheet.bays?.length ? resolved.bays.filter((b) => !b.item) : [];

	// From left to right: what hangs at the rear, the board with its ports at the right, bays.
	const cell = (list: readonly Socket[]) =>
		list.length === 0 ? 0 : Math.min(140, Math.max(...list.map((k) => MARK + wide(k.id) + 10)));
	const rear = usb.map((k) =>
		lies(k) ? sizes.of(k, Math.max(200, width * 0.24), 'drive', true) : null
	);
	const rearW = Math.max(cell(usb), ...rear.map((s) => s?.w ?? 0));
	const bayW = drives.length + emptyBays.length > 0 ? Math.min(200, width * 0.24) : 0;
	const board = {
		x: rearW > 0 ? rearW + 16 : 0,
		y: 0,
		w: width - (rearW > 0 ? rearW + 16 : 0) - (bayW > 0 ? bayW + 24 : 0),
		h: 0
	};
	const named = ports.length > 1 ? LINE + 2 : 0; // the name of a group stands over it
	const portRows = Math.max(1, Math.floor((height - 2 * PAD - named) / (CELL + 3)));
	const portCols = Math.ceil(ports.length / portRows);
	const portW = cell(ports);
	const portsW = portCols * (portW + 3);
	const x0 = board.x + PAD;
	const room = Math.max(240, board.w - 2 * PAD - (portsW > 0 ? portsW + 36 : 0));

	// The rows of the board, above and below the one with processor and memory.
	const cpu = sheet.roots.find((r) => r.kind === 'cpu') ?? sheet.roots[0]!;
	const item = (place: Socket['place'], size: { w: number; h: number }) => ({
		size,
		xMM: place.xMM,
		wMM: place.widthMM,
		yMM: middle(place),
		from: place.yMM,
		to: place.yMM + place.heightMM
	});
	const items: Item[] = [
		...of('m2', 'pcie').map((socket) => {
			const sized = sizes.of(socket, room);
			return { socket, sized, ...item(socket.place, sized) };
		}),
		...sheet.roots
			.filter((r) => r !== cpu)
			.map((root) => {
				const says = told.root(root.id);
				const w = Math.max(76, wide(root.name) + 16, ...says.map((s) => wide(s) + 12)) + TRUNK;
				return { root, ...item(root.place, { w, h: 26 + LINE * says.length }) };
			})
	];
	const cpuY = middle(cpu.place);
	const above = rows(
		items.filter((i) => i.yMM < cpuY),
		room
	);
	const below = rows(
		items.filter((i) => i.yMM >= cpuY),
		room
	);
	const bank = memory(sheet, sizes, cpu, room);

	// Heights: what is left goes to the memory slots, then between the rows.
	const count = above.length + below.length;
	const fixed = [...above, ...below].reduce((n, r) => n + r.h, 0) + 2 * PAD;
	const least = Math.max(
		ports.length > 0 ? Math.ceil(ports.length / Math.max(1, portCols)) * (CELL + 3) + named : 0,
		usb.reduce((n, _, i) => n + (rear[i]?.h ?? CELL) + GAP, usb.length > 1 ? LINE + 2 : 0)
	);
	let gap = 8;
	const want = Math.max(height, least + 2 * PAD);
	const bankH = Math.max(bank.least, Math.min(bank.most, want - fixed - gap * count));
	if (count > 0) gap = Math.max(gap, Math.min(34, (want - fixed - bankH) / count));
	board.h = Math.max(fixed + bankH + gap * count, least + 2 * PAD);

	const controls: Control[] = [];
	const frames: Frame[] = [];
	const rootBox = new Map<string, Box>();
	const target = new Map<string, Box>(); // where a socket's ribbon ends
	const put = (s: Sized, x: number, y: number) => {
		const at = moved(s, x, y);
		controls.push(...at.controls);
		frames.push(...at.frames);
	};
	let y = board.y + PAD + Math.max(0, (board.h - fixed - bankH - gap * count) / 2);
	const setRows = (list: readonly Row[]) => {
		for (const row of list) {
			const xs = spread(row, x0, room, sheet.board.widthMM);
			row.items.forEach((it, i) => {
				const x = xs[i]!;
				if (it.root) {
					rootBox.set(it.root.id, {
						x: x + TRUNK,
						y: y + (row.h - it.size.h) / 2,
						w: it.size.w - TRUNK,
						h: it.size.h
					});
					return;
				}
				const top = y + (row.h - it.size.h) / 2;
				put(it.sized!, x, top);
				target.set(it.socket!.id, { x, y: top, w: it.size.w, h: it.size.h });
			});
			y += row.h + gap;
		}
	};
	setRows(above);
	const set = bank.set(x0, y, bankH, sheet.board.widthMM);
	controls.push(...set.controls);
	rootBox.set(cpu.id, set.cpu);
	y += bankH + gap;
	setRows(below);

	// Ports in columns at the board's right edge, by what feeds them.
	const px = board.x + board.w - portsW - 4;
	const feeder = (k: Socket) => k.root ?? sheet.groups.find((g) => g.id === k.group)?.root;
	const tall = Math.ceil(ports.length / Math.max(1, portCols)) * (CELL + 3);
	const fed = rootBox.get(
		feeder(ports.find((k) => k.kind === 'sata') ?? ports[0] ?? sheet.sockets[0]!) ?? ''
	);
	const py = clamp(
		(fed ? fed.y + fed.h / 2 : board.h / 2) - tall / 2,
		board.y + PAD + named,
		board.h - PAD - tall
	);
	const held: { id: string; box: Box }[] = [];
	const order = [...ports].sort(
		(a, b) => a.place.yMM - b.place.yMM || a.place.xMM - b.place.xMM || 0
	);
	order.forEach((k, i) => {
		const box = {
			x: px + Math.floor(i / Math.ceil(order.length / portCols)) * (portW + 3),
			y: py + (i % Math.ceil(order.length / portCols)) * (CELL + 3),
			w: portW,
			h: CELL
		};
		target.set(k.id, box);
		if (lies(k)) held.push({ id: k.id, box });
		else controls.push({ socket: k, state: sizes.state(k), look: 'cell', box });
	});

	const groups: Group[] = [...set.groups];
	if (named > 0)
		groups.push({
			id: 'ports',
			name: [...new Set(order.map((k) => (k.kind === 'u2' ? 'U.2' : 'SATA')))].join(', '),
			sockets: order.map((k) => k.id),
			label: { x: px, y: py - named, w: portsW, h: LINE },
			opens: { x: px - 8, y: py, to: 'left' }
		});

	// The strip of bays, in the order of the ports; empty bays stand below.
	const bx = board.x + board.w + 24;
	const leads: string[] = [];
	const stand = order.filter(lies).map((k) => ({ k, s: sizes.of(k, bayW, 'drive') }));
	const strip = stand.reduce((n, d) => n + d.s.h + GAP, 0) + emptyBays.length * (CELL + 3);
	const middleOf = held.reduce((n, h) => n + h.box.y + CELL / 2, 0) / Math.max(1, held.length);
	let by = clamp(
		(held.length > 0 ? middleOf : board.h / 2) - strip / 2,
		board.y,
		Math.max(board.y, Math.max(board.h, strip) - strip)
	);
	for (const { k, s } of stand) {
		controls.push({ ...s.controls[0]!, box: { x: bx, y: by, w: bayW, h: s.h } });
		const from = target.get(k.id)!;
		leads.push(curve(from.x + from.w, from.y + CELL / 2, bx, by + s.h / 2));
		by += s.h + GAP;
	}
	const bays = emptyBays.map((b, i) => ({
		name: b.bay,
		box: { x: bx, y: by + i * (CELL + 3), w: bayW, h: CELL }
	}));

	// The rear: a port is a cell at the edge, a box on it stands outside.
	let uy = board.y + PAD;
	if (usb.length > 1) {
		const x = rearW + 16 - cell(usb) - 6;
		groups.push({
			id: 'usb',
			name: 'USB',
			sockets: usb.map((k) => k.id),
			label: { x, y: uy, w: cell(usb), h: LINE },
			opens: { x: rearW + 20, y: uy + LINE + 2, to: 'right' }
		});
		uy += LINE + 2;
	}
	usb.forEach((k, i) => {
		const s = rear[i];
		if (!s) {
			controls.push({
				socket: k,
				state: sizes.state(k),
				look: 'cell',
				box: { x: rearW + 16 - cell(usb) - 6, y: uy, w: cell(usb), h: CELL }
			});
			uy += CELL + GAP;
			return;
		}
		put(s, rearW - s.w, uy);
		leads.push(curve(rearW, uy + 14, board.x, uy + 14));
		uy += s.h + GAP;
	});

	const total = Math.max(board.h, by + emptyBays.length * (CELL + 3), uy);
	const links = ribbons(sheet, sizes, feeder, cpu, rootBox, target, set.channels);
	return {
		width,
		height: Math.ceil(total) + 2,
		board,
		controls,
		frames,
		roots: sheet.roots.flatMap((root) => {
			const box = rootBox.get(root.id);
			return box
				? [{ root, box, uplink: links.uplinks.get(root.id), says: told.root(root.id) }]
				: [];
		}),
		ribbons: links.ribbons,
		leads,
		ports: held,
		groups,
		bays
	};
}

const clamp = (v: number, low: number, high: number) =>
	Math.max(low, Math.min(Math.max(low, high), v));

const curve = (x1: number, y1: number, x2: number, y2: number) =>
	`M${x1} ${y1}C${(x1 + x2) / 2} ${y1} ${(x1 + x2) / 2} ${y2} ${x2} ${y2}`;

/** The row of processor and memory: its heights, and where everything stands in it. */
interface Bank {
	readonly least: number;
	readonly most: number;
	set(
		x0: number,
		y: number,
		h: number,
		boardMM: number
	): {
		cpu: Box;
		controls: Control[];
		groups: Group[];
		channels: { id: string; d: string; live: boolean }[];
	};
}

function memory(sheet: Sheet, sizes: Sizes, cpu: Root, room: number): Bank {
	const slots = sheet.sockets.filter((k) => k.kind === 'dimm' || k.kind === 'sodimm');
	const cx = cpu.place.xMM + cpu.place.widthMM / 2;
	const center = (k: Socket) => k.place.xMM + k.place.widthMM / 2;
	const upright = slots.filter((k) => k.place.heightMM > k.place.widthMM);
	const lanes = sheet.sockets.filter((k) => k.kind === 'm2' || k.kind === 'pcie').length;
	let cpuW = Math.max(
		112,
		...[cpu.name, ...sizes.told.root(cpu.id)].map((s) => wide(s) + 14),
		Math.min(180, 40 + lanes * 12)
	);
	const text = (k: Socket) => `${k.id} ${sizes.told.name(sizes.state(k).item) ?? ''}`.trim();
	const stickW = (k: Socket, h: number) => 8 + LINE * Math.min(3, lines(text(k), h - MARK - 12));
	const many = upright.reduce((n, k) => n + stickW(k, STICK.least) + 4, 0) + cpuW + 60 > room;
	if (many) cpuW = Math.max(112, Math.min(cpuW, room - 180));
	const flat = many ? slots : slots.filter((k) => !upright.includes(k));
	const sticks = many ? [] : upright;
	// Below the slots of a channel stands its name, where it has several.
	const several = sticks.some((k) => sticks.some((o) => o !== k && o.channel === k.channel));
	const named = several ? LINE + 4 : 0;
	const flats = flat.map((k) => ({
		k,
		s: sizes.of(k, many ? Math.min(180, room - cpuW - 30) : Math.min(230, (room - cpuW - 40) / 2))
	}));
	const flatsAt = (left: boolean) => flats.filter(({ k }) => center(k) < cx === left);
	const stack = (list: typeof flats) => list.reduce((n, { s }) => n + s.h + 4, 0);
	// More than fit beside the processor stand in columns to its right.
	const columnW = Math.max(0, ...flats.map(({ s }) => s.w));
	const columns = many ? Math.max(1, Math.floor((room - cpuW - 30) / (columnW + 4))) : 1;
	const grid = many ? Math.ceil(flats.length / columns) : 0;
	const gridH = grid * (Math.max(0, ...flats.map(({ s }) => s.h)) + 4);
	const least = Math.max(
		64,
		sticks.length > 0 ? STICK.least + named : 0,
		many ? gridH : Math.max(stack(flatsAt(true)), stack(flatsAt(false)))
	);
	return {
		least,
		most: Math.max(least, sticks.length > 0 ? STICK.most + named : 130),
		set(x0, y, full, boardMM) {
			const h = full - named;
			const controls: Control[] = [];
			const w = (k: Socket) => stickW(k, h);
			const left = sticks.filter((k) => center(k) < cx).sort((a, b) => center(a) - center(b));
			const right = sticks.filter((k) => center(k) >= cx).sort((a, b) => center(a) - center(b));
			const sum = (list: Socket[]) => list.reduce((n, k) => n + w(k) + 4, 0);
			const flatL = many ? 0 : Math.max(0, ...flatsAt(true).map(({ s }) => s.w + 30));
			const flatR = many ? 0 : Math.max(0, ...flatsAt(false).map(({ s }) => s.w + 30));
			const leftW = sum(left) + (left.length > 0 ? 26 : 0) + flatL;
			const rightW =
				sum(right) + (right.length > 0 ? 26 : 0) + flatR + (many ? columns * (columnW + 4) : 0);
			const x = clamp(x0 + (cx / boardMM) * room - cpuW / 2, x0 + leftW, x0 + room - rightW - cpuW);
			const cpuH = Math.min(h, Math.max(64, Math.min(110, h * 0.62)));
			const box = { x, y: y + (h - cpuH) / 2, w: cpuW, h: cpuH };
			const at = new Map<string, Box>();
			const stick = (k: Socket, sx: number) => {
				const b = { x: sx, y, w: w(k), h };
				at.set(k.id, b);
				controls.push({ socket: k, state: sizes.state(k), look: 'stick', box: b });
			};
			let sx = x - 26;
			for (const k of left.reverse()) stick(k, (sx -= w(k) + 4));
			sx = x + cpuW + 26;
			for (const k of right) {
				stick(k, sx);
				sx += w(k) + 4;
			}
			const place = (k: Socket, s: Sized, fx: number, fy: number) => {
				const c = s.controls[0]!;
				const b = { x: fx, y: fy, w: s.w, h: s.h };
				at.set(k.id, b);
				controls.push({ ...c, box: b });
			};
			if (many)
				flats.forEach(({ k, s }, i) =>
					place(
						k,
						{ ...s, w: columnW },
						x + cpuW + 20 + Math.floor(i / grid) * (columnW + 4),
						y + (i % grid) * (gridH / grid)
					)
				);
			else
				for (const side of [true, false]) {
					const list = flatsAt(side);
					let fy = y + (h - stack(list)) / 2;
					for (const { k, s } of list) {
						place(k, s, side ? x - 26 - s.w - sum(left) : sx + 4, fy);
						fy += s.h + 4;
					}
				}
			// Slots of one channel that stand side by side are held together by its name.
			const groups: Group[] = [];
			if (several)
				for (const side of [left, right]) {
					const run = [...side].sort((a, b) => at.get(a.id)!.x - at.get(b.id)!.x);
					for (let i = 0, j = 1; i < run.length; i = j, j = i + 1) {
						while (j < run.length && run[j]!.channel === run[i]!.channel) j++;
						const own = run.slice(i, j);
						const x1 = at.get(own[0]!.id)!.x;
						const end = at.get(own.at(-1)!.id)!;
						const x2 = end.x + end.w;
						const channel = run[i]!.channel ?? '';
						const name = ['channel ' + channel, 'ch ' + channel, channel].find(
							(n) => wide(n) <= x2 - x1
						);
						if (!channel || !name) continue;
						groups.push({
							id: `channel ${channel} ${i}`,
							name,
							sockets: own.map((k) => k.id),
							label: { x: x1, y: y + h + 5, w: x2 - x1, h: LINE },
							bracket: `M${x1 + 1} ${y + h + 2}v4H${x2 - 1}v-4`,
							opens: { x: x1, y: y + h + LINE + 8, to: 'right' }
						});
					}
				}
			// A channel is one ribbon from the processor through its slots.
			const names = [...new Set(slots.map((k) => k.channel ?? ''))];
			const channels = names.flatMap((name, i) => {
				const own = slots.filter((k) => (k.channel ?? '') === name);
				const boxes = own.map((k) => at.get(k.id)!).filter(Boolean);
				if (boxes.length === 0) return [];
				const toRight = boxes[0]!.x > x;
				const far = toRight
					? Math.max(...boxes.map((b) => b.x + 6))
					: Math.min(...boxes.map((b) => b.x + b.w - 6));
				const low = Math.max(...boxes.map((b) => b.y));
				const high = Math.min(...boxes.map((b) => b.y + b.h));
				const side = names.filter((n) => {
					const first = at.get(slots.find((k) => (k.channel ?? '') === n)!.id);
					return first && first.x > x === toRight;
				});
				const n = side.indexOf(name);
				const cy = box.y + (box.h * (n + 1)) / (side.length + 1);
				const ey = clamp(cy, low + 6, high - 6);
				const start = toRight ? x + cpuW : x;
				return [
					{
						id: 'channel ' + (name || String(i)),
						d: `M${start} ${cy}L${start + (toRight ? 14 : -14)} ${ey}H${far}`,
						live: own.some((k) => sizes.state(k).state === 'live')
					}
				];
			});
			return { cpu: box, controls, groups, channels };
		}
	};
}

/** A path of level and upright stretches with rounded corners. */
function elbow(points: readonly (readonly [number, number])[]): string {
	let d = `M${points[0]![0]} ${points[0]![1]}`;
	for (let i = 1; i < points.length - 1; i++) {
		const [px, py] = points[i - 1]!;
		const [x, y] = points[i]!;
		const [nx, ny] = points[i + 1]!;
		const r = Math.min(12, Math.hypot(x - px, y - py) / 2, Math.hypot(nx - x, ny - y) / 2);
		const back = (ax: number, ay: number) => {
			const l = Math.hypot(ax - x, ay - y) || 1;
			return `${x + ((ax - x) / l) * r} ${y + ((ay - y) / l) * r}`;
		};
		d += `L${back(px, py)}Q${x} ${y} ${back(nx, ny)}`;
	}
	const [x, y] = points.at(-1)!;
	return d + `L${x} ${y}`;
}

function ribbons(
	sheet: Sheet,
	sizes: Sizes,
	feeder: (k: Socket) => string | undefined,
	cpu: Root,
	rootBox: ReadonlyMap<string, Box>,
	target: ReadonlyMap<string, Box>,
	channels: readonly { id: string; d: string; live: boolean }[]
) {
	const thick = (lanes: number) => Math.max(3, Math.min(11, lanes * 0.65));
	const out: Ribbon[] = channels.map((c) => ({
		id: c.id,
		d: c.d,
		wired: 6,
		flows: c.live ? 6 : 0,
		depth: 2,
		idle: !c.live
	}));
	const uplinks = new Map<string, { d: string; wired: number; depth: number }>();
	const push = (k: Socket, d: string) => {
		const s = sizes.state(k);
		const lead = k.kind === 'sata' || s.link?.protocol === 'sata';
		out.push({
			id: k.id,
			d,
			wired: thick(k.lanes ?? 1),
			flows: s.state === 'off' ? 0 : thick(lead ? 1 : (s.link?.lanes ?? 1)),
			depth: lead ? 1 : (s.link?.gen ?? k.gen ?? 1),
			idle: !s.item
		});
	};

	for (const root of sheet.roots) {
		const from = rootBox.get(root.id);
		if (!from) continue;
		const ends = sheet.sockets
			.filter((k) => feeder(k) === root.id && target.has(k.id))
			.map((k) => ({
				k,
				to: target.get(k.id)!,
				w: thick(k.lanes ?? 1),
				root: undefined as Root | undefined
			}));
		for (const r of sheet.roots)
			if (r.uplink?.to === root.id && rootBox.has(r.id))
				ends.push({
					k: sheet.sockets[0]!,
					to: rootBox.get(r.id)!,
					w: thick(r.uplink.lanes ?? 1),
					root: r
				});
		const done = (e: (typeof ends)[number], d: string) => {
			if (e.root) uplinks.set(e.root.id, { d, wired: e.w, depth: e.root.uplink?.gen ?? 1 });
			else push(e.k, d);
		};
		const fx1 = from.x + from.w;
		const fy1 = from.y + from.h;
		const down = ends.filter((e) => e.to.y >= fy1 - 4);
		const up = ends.filter((e) => e.to.y + e.to.h <= from.y + 4);
		const beside = ends.filter((e) => !down.includes(e) && !up.includes(e));
		const left = (e: (typeof ends)[number]) => e.to.x + e.to.w <= from.x + 6;
		const right = (e: (typeof ends)[number]) => e.to.x >= fx1 - 6;

		// Beside it: straight across, or in a curve.
		const sides = [beside.filter((e) => left(e)), beside.filter((e) => !left(e))];
		sides.forEach((list, n) => {
			list.sort((a, b) => a.to.y - b.to.y);
			list.forEach((e, i) => {
				const y1 = from.y + (from.h * (i + 1)) / (list.length + 1);
				const y2 = e.to.y + e.to.h / 2;
				done(e, n === 0 ? curve(from.x, y1, e.to.x + e.to.w, y2) : curve(fx1, y1, e.to.x, y2));
			});
		});
		// Below and above: each its own lane, the outer ones turn first, so that none cross.
		const isCPU = root === cpu;
		for (const [list, dir] of [
			[down, 1],
			[up, -1]
		] as const) {
			const near = (a: { to: Box }, b: { to: Box }) => (a.to.y - b.to.y) * dir;
			const ls = list.filter(left).sort(near);
			const rs = list.filter((e) => right(e) && !left(e)).sort(near);
			const ms = list.filter((e) => !left(e) && !right(e)).sort((a, b) => a.to.x - b.to.x);
			if (isCPU) {
				const all = [...ls, ...ms, ...rs.reverse()];
				const w = all.reduce((n, e) => n + e.w, 0);
				const space = Math.max(2, (from.w - 16 - w) / Math.max(1, all.length - 1));
				let x = from.x + 8 + Math.max(0, (from.w - 16 - w - space * (all.length - 1)) / 2);
				for (const e of all) {
					const at = x + e.w / 2;
					x += e.w + space;
					const y0 = dir > 0 ? fy1 : from.y;
					const yt = e.to.y + Math.min(e.to.h / 2, 20);
					if (ls.includes(e))
						done(
							e,
							elbow([
								[at, y0],
								[at, yt],
								[e.to.x + e.to.w, yt]
							])
						);
					else if (rs.includes(e))
						done(
							e,
							elbow([
								[at, y0],
								[at, yt],
								[e.to.x, yt]
							])
						);
					else {
						const tx = clamp(at, e.to.x + 6, e.to.x + e.to.w - 6);
						const ty = dir > 0 ? e.to.y : e.to.y + e.to.h;
						done(
							e,
							tx === at
								? `M${at} ${y0}L${at} ${ty}`
								: elbow([
										[at, y0],
										[at, ty - dir * 6],
										[tx, ty - dir * 6],
										[tx, ty]
									])
						);
					}
				}
				continue;
			}
			// A chipset: what stands over or under it straight, the rest round its side.
			ms.forEach((e, i) => {
				const x = clamp(
					from.x + (from.w * (i + 1)) / (ms.length + 1),
					e.to.x + 6,
					e.to.x + e.to.w - 6
				);
				done(e, `M${x} ${dir > 0 ? fy1 : from.y}L${x} ${dir > 0 ? e.to.y : e.to.y + e.to.h}`);
			});
			ls.reverse().forEach((e, i) => {
				const y1 = dir > 0 ? fy1 - 6 - i * 7 : from.y + 6 + i * 7;
				const x = from.x - 10 - (ls.length - 1 - i) * 8;
				const yt = e.to.y + Math.min(e.to.h / 2, 20);
				done(
					e,
					elbow([
						[from.x, clamp(y1, from.y + 4, fy1 - 4)],
						[x, clamp(y1, from.y + 4, fy1 - 4)],
						[x, yt],
						[e.to.x + e.to.w, yt]
					])
				);
			});
			rs.forEach((e, i) => {
				const y1 = dir > 0 ? fy1 - 5 - i * 3 : from.y + 5 + i * 3;
				done(
					e,
					curve(fx1, clamp(y1, from.y + 4, fy1 - 4), e.to.x, e.to.y + Math.min(e.to.h / 2, 20))
				);
			});
		}
	}
	return { ribbons: out.sort((a, b) => b.wired - a.wired), uplinks };
}

/** The nearest control from one in a direction: straight on before aside. */
export function toward(
	controls: readonly Control[],
	from: string,
	dx: number,
	dy: number
): string | undefined {
	const mid = (b: Box) => ({ x: b.x + b.w / 2, y: b.y + b.h / 2 });
	const start = controls.find((c) => c.socket.id === from);
	if (!start) return undefined;
	const a = mid(start.box);
	let best: { id: string; far: number } | undefined;
	for (const c of controls) {
		const b = mid(c.box);
		const on = (b.x - a.x) * dx + (b.y - a.y) * dy;
		const aside = Math.abs((b.x - a.x) * dy) + Math.abs((b.y - a.y) * dx);
		if (c === start || on < 3) continue;
		const far = on + 2 * aside;
		if (!best || far < best.far) best = { id: c.socket.id, far };
	}
	return best?.id;
}
