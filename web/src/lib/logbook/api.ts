// What the logbook asks of the server, and its addresses.
import { resolve } from '$app/paths';
import { call } from '$lib/api/client';
import type {
	Figures,
	Imported,
	LifeView,
	LogbookPage,
	ModelView,
	SheetName
} from '$lib/api/types.gen';

/** What of the logbook is asked for; nothing of a kind is everything. */
export interface Asked {
	readonly q: string;
	readonly kind: string;
	readonly who: string;
	readonly model: string;
	readonly from: string;
	readonly to: string;
	/** One job, sheet or part, with its kind. */
	readonly thing: string;
}
const NAMES = ['q', 'kind', 'who', 'model', 'from', 'to', 'thing'] as const;

/** What an address asks for; without one, everything. */
export const askedBy = (q = new URLSearchParams()) =>
	Object.fromEntries(NAMES.map((n) => [n, q.get(n) ?? ''])) as unknown as Asked;

export const query = (a: Asked) =>
	new URLSearchParams(NAMES.filter((n) => a[n]).map((n) => [n, a[n]]));

/** The address of a part of the logbook. */
export function logbookAt(a: Asked): string {
	const q = query(a);
	return resolve('/logbook') + (q.size > 0 ? '?' + q.toString() : '');
}
/** The address of the life of a machine, by one of its jobs, or of a part by its serial number. */
export const lifeAt = (of: { job: string } | { serial: string }) =>
	resolve('/logbook/life') + '?' + new URLSearchParams(of as Record<string, string>).toString();

export const logbook = (f: typeof fetch, a: Asked, after = '') => {
	const q = query(a);
	if (after) q.set('after', after);
	return call<LogbookPage>(f, '/logbook?' + q.toString());
};
export const life = (f: typeof fetch, of: URLSearchParams) =>
	call<LifeView>(f, '/life?' + of.toString());
export const figures = (f: typeof fetch, months: number) =>
	call<Figures>(f, '/figures?months=' + months);
export const model = (sheet: string) => call<ModelView>(fetch, '/models/' + sheet);
export const models = (f: typeof fetch) => call<SheetName[]>(f, '/sheets');
export const bringShop = (file: Blob) =>
	call<Imported>(fetch, '/shop', { method: 'POST', body: new Blob([file]) });
