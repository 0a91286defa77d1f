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
	const { job, change, key, by, at } = w;
	const kept = { job, change, key, by, at };
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

/** Lets go of one that was answered. */
export async function drop(w: Waiting): Promise<void> {
	if (w.n > 0) await (await db()).delete('changes', w.n);
}

/** Notes for which revision one is sent. */
export async function sentFor(w: Waiting, revision: number | undefined): Promise<Waiting> {
	const next: Waiting = { ...w, revision };
	if (w.n > 0) {
		const { n, ...kept } = next;
		await (await db()).put('changes', kept, n);
	}
	return next;
}
