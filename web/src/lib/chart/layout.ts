// Pure geometry of the drawing: from a sheet and what the core said of it to
// places, paths and widths in pixels. Nothing is judged here.
import type { Place, Resolved, Root, Sheet, Socket, SocketState } from '$lib/api/types.gen';
import type { Box, Ribbon } from './drawing';

export interface Mark {
	readonly socket: Socket;
	readonly state: SocketState;
	readonly box: Box;
}

export interface Chart {
	readonly width: number;
	readonly height: number;
	readonly scale: number; // px to a millimetre of the board
	readonly board: Box;
	readonly roots: readonly { root: Root; box: Box }[];
	readonly ribbons: readonly Ribbon[];
	readonly uplinks: readonly (Ribbon & { x: number; y: number; text: string })[];
	readonly marks: readonly Mark[];
}

const MARGIN = 12; // px
const LANE_MM = 0.85; // a lane is this wide on the board
const MAX_LANE = 1.8; // px
const MIN_RIBBON = 4; // px

/** The board to scale, in a width. */
export function layoutChart(sheet: Sheet, resolved: Resolved, width: number): Chart {
	const states = new Map(resolved.sockets.map((s) => [s.socket, s]));
	const bw = sheet.board.widthMM;
	const bh = sheet.board.heightMM;
	const scale = Math.max(0.1, (width - 2 * MARGIN) / bw);
	const h = bh * scale + 16;
	const board = {
		x: (width - bw * scale) / 2,
		y: (h - bh * scale) / 2,
		w: bw * scale,
		h: bh * scale
	};
	const box = (p: Place): Box => ({
		x: board.x + p.xMM * scale,
		y: board.y + p.yMM * scale,
		w: p.widthMM * scale,
		h: p.heightMM * scale
	});

	const ribbon = (lanes: number) =>
		Math.max(MIN_RIBBON, lanes * Math.min(MAX_LANE, LANE_MM * scale));

	const roots = sheet.roots.map((root) => ({ root, box: box(root.place) }));
	const rootBox = (id: string | undefined) => roots.find((r) => r.root.id === id)?.box;
	const feeder = (k: Socket) => k.root ?? sheet.groups.find((g) => g.id === k.group)?.root;

	const ribbons: Ribbon[] = [];
	for (const k of sheet.sockets) {
		const from = rootBox(feeder(k));
		const state = states.get(k.id);
		if (!from || !state || k.kind === 'dimm' || k.kind === 'sodimm') continue;
		if (k.kind === 'usb' && !state.item) continue; // a port at the rear: nothing of the board is spent on it
		// A lead, not lanes of the board.
		const lead = k.kind === 'sata' || k.kind === 'usb' || state.link?.protocol === 'sata';
		ribbons.push({
			id: k.id,
			d: feed(from, box(k.place)),
			wired: ribbon(k.lanes ?? 1),
			flows: state.state === 'off' ? 0 : ribbon(lead ? 1 : (state.link?.lanes ?? 1)),
			depth: lead ? 1 : (state.link?.gen ?? k.gen ?? 1),
			idle: !state.item
		});
	}
	ribbons.push(...channels(sheet, states, rootBox, box));
	ribbons.sort((a, b) => b.wired - a.wired);

	const uplinks = roots.flatMap(({ root, box: to }) => {
		const from = rootBox(root.uplink?.to);
		if (!from || !root.uplink) return [];
		const path = bend(from, to);
		const w = ribbon(root.uplink.lanes ?? 1);
		return [
			{
				...path,
				id: root.id,
				wired: w,
				flows: w,
				depth: root.uplink.gen ?? 1,
				idle: false,
				text: `uplink ${root.uplink.gen ? 'Gen ' + root.uplink.gen : '?'} x${root.uplink.lanes ?? '?'}`
			}
		];
	});

	const marks = sheet.sockets.flatMap((socket) => {
		const state = states.get(socket.id);
		if (!state) return [];
		return [{ socket, state, box: box(socket.place) }];
	});
	return { width, height: h, scale, board, roots, ribbons, uplinks, marks };
}

/** A name on the board: its middle, and how it is turned, in degrees. */
export interface Name {
	readonly text: string;
	readonly x: number;
	readonly y: number;
	readonly turn: number;
}

/**
 * Where the names of the sockets stand without labels in the margin: inside a socket
 * that is long enough, else beside it where they cover least. A name that would run into
 * what is there is left away: the tables have them all, and so has a press.
 */
export function namesOnBoard(chart: Chart): readonly Name[] {
	const LETTER = 9; // px, the width of a letter of the text
	const TALL = 18;
	const taken: Box[] = [...chart.roots, ...chart.marks].map((b) => b.box);
	return chart.marks.flatMap(({ socket, box: { x, y, w, h } }) => {
		const text = socket.id;
		const long = text.length * LETTER;
		const turn = h > w * 2 && h > long ? -90 : 0;
		const mid = { x: x + w / 2, y: y + h / 2 };
		if (turn || w > long) return [{ text, ...mid, turn }];
		const sides = [
			{ x: x + w + 5 + long / 2, y: mid.y },
			{ x: x - 5 - long / 2, y: mid.y },
			{ x: mid.x, y: y + h + TALL / 2 },
			{ x: mid.x, y: y - TALL / 2 }
		].map((p) => {
			const own: Box = { x: p.x - long / 2, y: p.y - TALL / 2, w: long, h: TALL };
			const out =
				own.x < 0 || own.y < 0 || own.x + own.w > chart.width || own.y + own.h > chart.height;
			return { ...p, own, covers: taken.reduce((a, t) => a + shared(own, t), out ? 1e6 : 0) };
		});
		const best = sides.reduce((a, b) => (b.covers < a.covers ? b : a));
		if (best.covers > 0.15 * long * TALL) return [];
		taken.push(best.own);
		return [{ text, x: best.x, y: best.y, turn: 0 }];
	});
}

/** The area two boxes share. */
function shared(a: Box, b: Box): number {
	const w = Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x);
	const h = Math.min(a.y + a.h, b.y + b.h) - Math.max(a.y, b.y);
	return w > 0 && h > 0 ? w * h : 0;
}

/** A ribbon from a root's shore into the nearer end of a socket, bending round what lies between. */
function feed(from: Box, to: Box): string {
	const fx = from.x + from.w / 2;
	const fy = from.y + from.h / 2;
	const upright = to.h > to.w * 2;
	if (upright) {
		const y = Math.min(to.y + to.h - 4, Math.max(to.y + 4, fy));
		const right = to.x > fx;
		return `M${right ? from.x + from.w : from.x} ${fy}L${right ? to.x : to.x + to.w} ${y}`;
	}
	// Close by and overlapping: straight down, or up, onto its long side.
	const left = Math.max(from.x, to.x);
	const overlap = Math.min(from.x + from.w, to.x + to.w) - left;
	const gap = Math.max(to.y - from.y - from.h, from.y - to.y - to.h);
	if (overlap > 12 && gap > 0 && gap < from.h * 0.9) {
		const x = left + overlap / 2;
		return to.y > from.y ? `M${x} ${from.y + from.h}V${to.y}` : `M${x} ${from.y}V${to.y + to.h}`;
	}
	const right = Math.abs(to.x + to.w - fx) <= Math.abs(to.x - fx); // enters at its right end
	const ex = right ? to.x + to.w : to.x;
	const ey = to.y + to.h / 2;
	// Below or above the root, with room to come down beside the socket's end.
	const lane = ex + (right ? 1 : -1) * (right ? gap * 0.35 : 12);
	if (gap > 0 && lane > from.x + 6 && lane < from.x + from.w - 6) {
		const y0 = to.y > from.y ? from.y + from.h : from.y;
		return `M${lane} ${y0}C${lane} ${ey} ${lane} ${ey} ${ex} ${ey}`;
	}
	const beyond = right ? ex < from.x : ex > from.x + from.w; // root lies outward of that end
	const sx = beyond ? (right ? from.x : from.x + from.w) : right ? from.x + from.w : from.x;
	const sy = ey > fy ? from.y + from.h * 0.72 : from.y + from.h * 0.28;
	const out = beyond
		? (sx + ex) / 2
		: (right ? Math.max(sx, ex) : Math.min(sx, ex)) +
			(right ? 1 : -1) * (18 + Math.abs(ey - sy) * 0.12);
	return `M${sx} ${sy}C${out} ${sy} ${out} ${ey} ${ex} ${ey}`;
}

/** An uplink from one root to another, with the place of its words. */
function bend(from: Box, to: Box): { d: string; x: number; y: number } {
	const fx = from.x + from.w / 2;
	const right = to.x + to.w / 2 > fx;
	const sx = fx + (right ? 0.36 : -0.36) * from.w;
	const sy = from.y + from.h;
	const ex = right ? to.x : to.x + to.w;
	const ey = to.y + to.h * 0.3;
	return { d: `M${sx} ${sy}C${sx} ${ey} ${sx} ${ey} ${ex} ${ey}`, x: ex - (right ? 8 : -8), y: ey };
}

/** Memory channels: one ribbon each, from the processor through the channel's slots. */
function channels(
	sheet: Sheet,
	states: ReadonlyMap<string, SocketState>,
	rootBox: (id: string | undefined) => Box | undefined,
	box: (p: Place) => Box
): Ribbon[] {
	const names = [...new Set(sheet.sockets.flatMap((k) => (k.channel ? [k.channel] : [])))];
	return names.flatMap((name, i) => {
		const slots = sheet.sockets.filter((k) => k.channel === name);
		const from = rootBox(slots[0]?.root);
		if (!from) return [];
		const boxes = slots.map((k) => box(k.place));
		const fx = from.x + from.w / 2;
		const first = boxes[0] as Box;
		const live = slots.some((k) => states.get(k.id)?.state === 'live');
		let d: string;
		if (first.h > first.w) {
			const right = first.x > fx;
			const x = right
				? Math.max(...boxes.map((b) => b.x))
				: Math.min(...boxes.map((b) => b.x + b.w));
			const y = from.y + (from.h * (i + 1)) / (names.length + 1);
			d = `M${right ? from.x + from.w : from.x} ${y}H${x}`;
		} else {
			const below = first.y > from.y;
			const x = Math.max(
				first.x + 6,
				Math.min(first.x + first.w - 6, from.x + (from.w * (i + 1)) / (names.length + 1))
			);
			const sx = from.x + (from.w * (i + 1)) / (names.length + 1);
			const y = below
				? Math.max(...boxes.map((b) => b.y))
				: Math.min(...boxes.map((b) => b.y + b.h));
			const sy = below ? from.y + from.h : from.y;
			d = `M${sx} ${sy}C${sx} ${(sy + y) / 2} ${x} ${(sy + y) / 2} ${x} ${y}`;
		}
		return [
			{
				id: 'channel ' + name,
				d,
				wired: 8,
				flows: live ? 8 : 0,
				depth: 2,
				idle: !live
			}
		];
	});
}
