// Where things are on the drawing of one step, in millimetres of the board.
import type { Layer, Part, Sheet, Step } from '$lib/api/types.gen';

export interface Box {
	x: number;
	y: number;
	w: number;
	h: number;
}
type Outlined = NonNullable<Layer['outline']>;
type Side = NonNullable<Layer['side']>;

export const boxOf = (o: Outlined): Box => ({
	x: o.xMM,
	y: o.yMM,
	w: o.widthMM,
	h: o.heightMM
});

/** The smallest box around boxes. */
export function around(boxes: readonly Box[]): Box {
	const x = Math.min(...boxes.map((b) => b.x));
	const y = Math.min(...boxes.map((b) => b.y));
	return {
		x,
		y,
		w: Math.max(...boxes.map((b) => b.x + b.w)) - x,
		h: Math.max(...boxes.map((b) => b.y + b.h)) - y
	};
}

/** What is to be seen at a step: the board, and the layer that moves. */
export function view(sheet: Sheet, layer: Layer | undefined): Box {
	const board = { x: 0, y: 0, w: sheet.board.widthMM, h: sheet.board.heightMM };
	const points = [
		...(layer?.fasteners ?? []).flatMap((f) => f.at ?? []),
		...(layer?.catches ?? []).flatMap((c) => c.at ?? []),
		...(layer?.leads ?? []).flatMap((l) => (l.at ? [l.at] : []))
	].map((p) => ({ x: p.xMM, y: p.yMM, w: 0, h: 0 }));
	const all = around([board, ...points, ...(layer?.outline ? [boxOf(layer.outline)] : [])]);
	const room = Math.max(all.w, all.h) * 0.09;
	return { x: all.x - room, y: all.y - room, w: all.w + 2 * room, h: all.h + 2 * room };
}

/** The socket at a step, by its place on the board; a carrier's position is where its slot is. */
export const socketAt = (sheet: Sheet, step: Step) =>
	sheet.sockets.find((k) => k.id === step.socket?.split('/')[0]);

/** What an M.2 card is by its shape, be it a drive or a card. */
export const m2Of = (part: Part | undefined) => part?.drive?.m2 ?? part?.card?.m2;

/** The plug of the lead that a step undoes or plugs. */
export const plugAt = (layers: readonly Layer[], step: Step) =>
	step.lead ? layers.find((l) => l.id === step.layer)?.leads?.[step.lead - 1]?.plug : undefined;

/** An M.2 card in its place, drawn to scale: the bar of its contacts, and where its posts can stand. */
export interface Laid {
	bar: Box;
	posts: { mm: number; x: number; y: number }[];
	/** From the free end to the contacts. */
	way: [number, number];
}
export function laid(k: Sheet['sockets'][number], thick: number): Laid | undefined {
	if (k.kind !== 'm2' || !k.contacts) return undefined;
	const { xMM: x, yMM: y, widthMM: w, heightMM: h } = k.place;
	const along = k.contacts === 'rear' || k.contacts === 'front';
	const back = k.contacts === 'front' || k.contacts === 'lower';
	const long = along ? w : h;
	const at = (mm: number) => (back ? long - mm : mm);
	return {
		bar: along
			? { x: x + at(0) - (back ? thick : 0), y, w: thick, h }
			: { x, y: y + at(0) - (back ? thick : 0), w, h: thick },
		posts: (k.lengthsMM ?? [])
			.filter((mm) => mm <= long + 1)
			.map((mm) => ({
				mm,
				x: along ? x + at(mm) : x + w / 2,
				y: along ? y + h / 2 : y + at(mm)
			})),
		way: along ? [back ? 1 : -1, 0] : [0, back ? 1 : -1]
	};
}

/** Which way on the drawing something moves: the rear panel is at its left. Up and down are across it. */
export const WAY: Record<Side, [number, number]> = {
	front: [1, 0],
	right: [1, 0],
	rear: [-1, 0],
	left: [-1, 0],
	top: [0, 0],
	bottom: [0, 0]
};

/** How deep each layer lies: none over it is 0. */
export function depths(layers: readonly Layer[]): Map<string, number> {
	const out = new Map<string, number>();
	const depth = (id: string, seen: readonly string[]): number => {
		const known = out.get(id);
		if (known !== undefined || seen.includes(id)) return known ?? 0;
		const l = layers.find((x) => x.id === id);
		const over = layers
			.filter(
				(x) =>
					x.id !== id && (l?.after?.includes(x.id) || (l?.in && (x.all || x.hides?.includes(l.in))))
			)
			.map((x) => x.id);
		const n = over.length ? 1 + Math.max(...over.map((a) => depth(a, [...seen, id]))) : 0;
		out.set(id, n);
		return n;
	};
	for (const l of layers) depth(l.id, []);
	return out;
}

const apart = (a: Box, b: Box) =>
	Math.max(0, Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x)) *
	Math.max(0, Math.min(a.y + a.h, b.y + b.h) - Math.max(a.y, b.y));

export interface Label {
	text: string;
	/** Of the mark it belongs to. */
	x: number;
	y: number;
}
/**
 * Where labels stand beside their marks, as the middle of their text: each in the first of the places around
 * its mark in which it covers least of what is drawn.
 */
export function labelled(
	labels: readonly Label[],
	taken: readonly Box[],
	within: Box,
	font: number
): { x: number; y: number }[] {
	const covered = [...taken];
	return labels.map((l) => {
		const w = l.text.length * font * 0.56;
		const h = font * 1.15;
		const far = font * 1.1;
		const spots = [
			[far + w / 2, 0],
			[-far - w / 2, 0],
			[0, -far - h / 2],
			[0, far + h / 2],
			[far + w / 2, -far - h / 2],
			[-far - w / 2, -far - h / 2],
			[far + w / 2, far + h / 2],
			[-far - w / 2, far + h / 2],
			[0, -2 * far - h],
			[0, 2 * far + h]
		].map(([dx, dy]) => ({ x: l.x + dx!, y: l.y + dy! }));
		const box = (p: { x: number; y: number }): Box => ({ x: p.x - w / 2, y: p.y - h / 2, w, h });
		const cost = (p: { x: number; y: number }) => {
			const b = box(p);
			return covered.reduce((sum, o) => sum + apart(b, o), w * h - apart(b, within));
		};
		const best = spots.reduce((a, b) => (cost(b) < cost(a) - 1e-9 ? b : a));
		covered.push(box(best));
		return best;
	});
}
