// A sheet while it is written: every change is judged by the server, kept in this
// browser, and can be taken back.
import { createContext } from 'svelte';
import { api } from '$lib/api/client';
import { refusal } from '$lib/api/refused';
import type { Layer, Problem, Sheet, SheetCheck, Socket } from '$lib/api/types.gen';
import { read, write } from './pointer';

const JUDGE_AFTER = 150; // ms without a change
const STEPS = 200; // kept for undo

/** What is kept of a draft in the browser. */
interface Kept {
	readonly sheet: Sheet;
	readonly revision: number;
	readonly at: number; // ms since 1970
}

const slot = (key: string) => 'deepbay.draft.' + key;

/** A draft left behind under a key, null if there is none. */
export function leftBehind(key: string): Kept | null {
	try {
		return JSON.parse(localStorage.getItem(slot(key)) ?? 'null') as Kept | null;
	} catch {
		return null; // written by something else: as good as none
	}
}

export type List =
	'processors' | 'roots' | 'groups' | 'sockets' | 'bays' | 'layers' | 'settings' | 'rules';

/** Names in a layer follow what is renamed or taken away: layers, sockets and bays. */
function follow(l: Layer, list: List, to: (id: string) => string | undefined) {
	const all = (ids: string[] | undefined) => {
		const left = ids?.map(to).filter((x) => x !== undefined);
		return left?.length ? (left as string[]) : undefined;
	};
	if (list === 'layers') {
		l.after = all(l.after);
		for (const d of l.leads ?? []) d.under = all(d.under);
	} else if (list === 'sockets' || list === 'bays') {
		l.hides = all(l.hides);
		l.crowds = all(l.crowds);
		l.holds = all(l.holds);
		l.in = l.in && to(l.in);
	}
}

export class Draft {
	sheet = $state<Sheet>() as Sheet;
	revision: number;
	check = $state.raw<SheetCheck | null>(null);
	offline = $state(false);
	#key: string;
	#base = $state('');
	#past = $state.raw<readonly string[]>([]);
	#future = $state.raw<readonly string[]>([]);
	#timer: ReturnType<typeof setTimeout> | undefined;
	#abort: AbortController | null = null;
	#held: string | null = null;

	/** key names the draft in this browser; base is what it is compared with. */
	constructor(key: string, base: Sheet, revision: number, now: Sheet = base) {
		this.#key = key;
		this.revision = revision;
		this.#base = JSON.stringify(base);
		this.sheet = structuredClone(now);
		void this.#judge();
	}

	readonly dirty = $derived.by(() => JSON.stringify(this.sheet) !== this.#base);
	get canUndo() {
		return this.#past.length > 0;
	}
	get canRedo() {
		return this.#future.length > 0;
	}
	get problems(): readonly Problem[] {
		return this.check?.problems ?? [];
	}
	/** The faults at a place, or inside it. */
	at(pointer: string): readonly Problem[] {
		return this.problems.filter((p) => p.pointer === pointer);
	}

	get = (pointer: string) => read(this.sheet, pointer);
	set = (pointer: string, value: unknown) => {
		if (read(this.sheet, pointer) !== value) this.change(() => write(this.sheet, pointer, value));
	};

	/** One step that can be taken back. */
	change(f: (s: Sheet) => void) {
		this.hold();
		f(this.sheet);
		this.release();
	}
	/** Between hold and release all changes are one step: while something is dragged. */
	hold() {
		this.#held ??= JSON.stringify(this.sheet);
	}
	release() {
		const before = this.#held;
		this.#held = null;
		if (before === null || before === JSON.stringify(this.sheet)) return;
		this.#past = [...this.#past, before].slice(-STEPS);
		this.#future = [];
		this.#changed();
	}
	undo() {
		const to = this.#past.at(-1);
		if (to === undefined) return;
		this.#future = [...this.#future, JSON.stringify(this.sheet)];
		this.#past = this.#past.slice(0, -1);
		this.sheet = JSON.parse(to) as Sheet;
		this.#changed();
	}
	redo() {
		const to = this.#future.at(-1);
		if (to === undefined) return;
		this.#past = [...this.#past, JSON.stringify(this.sheet)];
		this.#future = this.#future.slice(0, -1);
		this.sheet = JSON.parse(to) as Sheet;
		this.#changed();
	}
	/** After it was kept in the shop, or given up. */
	settled(sheet: Sheet, revision: number) {
		this.sheet = structuredClone(sheet);
		this.#base = JSON.stringify(sheet);
		this.revision = revision;
		this.#past = [];
		this.#future = [];
		localStorage.removeItem(slot(this.#key));
		void this.#judge();
	}
	close() {
		clearTimeout(this.#timer);
		this.#abort?.abort();
	}

	/** A name that no entry of the list has: M2_3 after M2_2. */
	free(list: List, stem: string): string {
		const taken = (this.sheet[list] ?? []).map((e) => e.id);
		for (let n = 1; ; n++) if (!taken.includes(stem + n)) return stem + n;
	}

	/** Gives an entry another name, everywhere it is named. */
	rename(list: List, i: number, to: string) {
		this.change((s) => {
			const entry = s[list]?.[i];
			if (!entry) return;
			const was = entry.id;
			entry.id = to;
			const swap = (o: object | undefined, field: string) => {
				const node = o as Record<string, unknown> | undefined;
				if (node?.[field] === was) node[field] = to;
			};
			for (const r of s.rules) {
				for (const c of r.when) {
					if (list === 'sockets') swap(c, 'socket');
					if (list === 'settings') swap(c, 'setting');
					if (list === 'processors') swap(c, 'processor');
				}
				if (list === 'sockets') for (const e of r.then) swap(e, 'socket');
			}
			if (list === 'sockets')
				for (const b of s.bays ?? [])
					if (b.ports) b.ports = b.ports.map((x) => (x === was ? to : x)) as typeof b.ports;
			if (list === 'sockets')
				for (const f of s.memory.fill ?? [])
					f.slots = f.slots.map((x) => (x === was ? to : x)) as typeof f.slots;
			for (const l of s.layers ?? []) follow(l, list, (x) => (x === was ? to : x));
			if (list === 'groups') for (const k of s.sockets) swap(k, 'group');
			if (list === 'roots') {
				for (const k of s.sockets) swap(k, 'root');
				for (const g of s.groups) swap(g, 'root');
				for (const r of s.roots) swap(r.uplink, 'to');
			}
		});
	}

	/** Takes an entry out, with the parts of rules and orders that name it. */
	remove(list: List, i: number) {
		this.change((s) => {
			const gone = s[list]?.[i]?.id;
			s[list]?.splice(i, 1);
			if (s.bays?.length === 0) delete s.bays;
			if (list === 'sockets')
				for (const b of s.bays ?? []) {
					const left = b.ports?.filter((x) => x !== gone);
					if (left?.length) b.ports = left as typeof b.ports;
					else delete b.ports;
				}
			if (s.layers?.length === 0) delete s.layers;
			if (gone)
				for (const l of s.layers ?? []) follow(l, list, (x) => (x === gone ? undefined : x));
			const field = { sockets: 'socket', settings: 'setting', processors: 'processor' }[
				list as string
			] as 'socket' | 'setting' | 'processor' | undefined;
			if (!gone || !field) return;
			const rules = s.rules
				.map((r) => ({
					...r,
					when: r.when.filter((c) => c[field] !== gone),
					then: r.then.filter((e) => field !== 'socket' || e.socket !== gone)
				}))
				.filter((r) => r.when.length > 0 && r.then.length > 0);
			s.rules = rules as typeof s.rules;
			if (field === 'socket' && s.memory.fill)
				s.memory.fill = s.memory.fill.filter((f) => !f.slots.includes(gone));
		});
	}

	add(k: Omit<Socket, 'place'>, width: number, height: number): string {
		this.change((s) => s.sockets.push({ ...k, place: this.#room(width, height) }));
		return k.id;
	}

	/** The first place on the board where nothing lies yet, from the lower left. */
	#room(w: number, h: number) {
		const { widthMM: bw, heightMM: bh } = this.sheet.board;
		const taken = [...this.sheet.sockets, ...this.sheet.roots].map((x) => x.place);
		for (let y = bh - h - 2; y >= 0; y -= 4)
			for (let x = 2; x + w <= bw; x += 4)
				if (
					taken.every(
						(p) => x + w < p.xMM || p.xMM + p.widthMM < x || y + h < p.yMM || p.yMM + p.heightMM < y
					)
				)
					return { xMM: x, yMM: y, widthMM: w, heightMM: h };
		return { xMM: 0, yMM: 0, widthMM: Math.min(w, bw), heightMM: Math.min(h, bh) };
	}

	#changed() {
		const kept: Kept = {
			sheet: $state.snapshot(this.sheet) as Sheet,
			revision: this.revision,
			at: Date.now()
		};
		if (this.dirty) localStorage.setItem(slot(this.#key), JSON.stringify(kept));
		else localStorage.removeItem(slot(this.#key));
		clearTimeout(this.#timer);
		this.#timer = setTimeout(() => void this.#judge(), JUDGE_AFTER);
	}

	async #judge() {
		this.#abort?.abort();
		const abort = (this.#abort = new AbortController());
		try {
			const check = await api.checkSheet($state.snapshot(this.sheet) as Sheet, abort.signal);
			if (abort.signal.aborted) return;
			// Without an answer for the board, the last one stays drawn.
			this.check = check.empty ? check : { ...check, empty: this.check?.empty };
			this.offline = false;
		} catch (e) {
			if (e instanceof DOMException) return;
			refusal(e);
			this.offline = true;
		}
	}
}

export const [useDraft, provideDraft] = createContext<() => Draft>();
