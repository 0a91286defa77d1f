// Changes that the server has not answered yet, in the browser's own database: in order, past a
// reload and a closed tab. Each has its key, by which the server takes it once.
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Change } from '$lib/api/types.gen';

export interface Waiting {
	/** Its place in the order; 0 where the browser keeps nothing, NOT_YET before it is kept. */
	readonly n: number;
	readonly job: string;
	readonly change: Change;
	readonly key: string;
	readonly by: string;
	readonly at: string;
	/** The revision it was first sent for: it may have arrived, so it is asked again word for word. */
	readonly revision?: number;
	/** What was pressed for it. */
	readonly pressed?: string;
	/** It was taken back while it may have arrived: once it is answered, it is undone. */
	readonly back?: boolean;
}

export const NOT_YET = -1;

interface Shape extends DBSchema {
	changes: { key: number; value: Omit<Waiting, 'n'>; indexes: { job: string } };
}

let opened: Promise<IDBPDatabase<Shape>> | undefined;
const db = () =>
	(opened ??= openDB<Shape>('deepbay', 1, {
		upgrade(d) {
			d.createObjectStore('changes', { autoIncrement: true }).createIndex('job', 'job');
		}
	}));

/** Keeps a change before it is sent. Where the browser keeps nothing it lives as long as the page. */
export async function keep(w: Waiting): Promise<Waiting> {
	const { job, change, key, by, at, pressed } = w;
	const kept = { job, change, key, by, at, pressed };
	try {
		return { ...w, n: await (await db()).add('changes', kept) };
	} catch {
		return { ...w, n: 0 };
	}
}

/** The time as the server writes it. */
export const now = () => new Date().toISOString();

/** What waits for a job, oldest first. */
export async function waiting(job: string): Promise<Waiting[]> {
	const out: Waiting[] = [];
	try {
		const index = (await db()).transaction('changes').store.index('job');
		for (let c = await index.openCursor(job); c; c = await c.continue())
			out.push({ ...c.value, n: c.primaryKey });
	} catch {
		// kept nowhere, so nothing waits
	}
	return out;
}

/** Lets go of one that was answered. Where that fails it is asked again by its key, and taken once. */
export async function drop(w: Waiting): Promise<void> {
	if (w.n > 0) await (await db()).delete('changes', w.n).catch(() => undefined);
}

/** Notes for which revision one is sent. */
export const sentFor = (w: Waiting, revision: number | undefined) => put({ ...w, revision });

/** Notes that one is to be undone once it is answered. */
export const takenBack = (w: Waiting) => put({ ...w, back: true });

async function put(w: Waiting): Promise<Waiting> {
	const { n, ...kept } = w;
	if (n > 0) await (await db()).put('changes', kept, n).catch(() => undefined);
	return w;
}

/** What was pressed last, as it is called on the screen. */
export function pressed(): string | undefined {
	const el = document.activeElement;
	if (!(el instanceof HTMLElement) || el === document.body) return undefined;
	const label = (el as HTMLInputElement).labels?.[0]?.innerText;
	const chosen = el instanceof HTMLSelectElement ? el.selectedOptions[0]?.text : undefined;
	const name = el.getAttribute('aria-label') ?? label ?? el.innerText;
	const words = [name, chosen].filter(Boolean).join(': ').replace(/\s+/g, ' ').trim();
	return words.slice(0, 160) || undefined;
}
