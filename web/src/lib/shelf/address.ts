import { resolve } from '$app/paths';

/** What of the shelf is asked for. */
export interface Asked {
	readonly q: string;
	readonly kind: string;
	/** A job: what suits its machine comes first. */
	readonly job: string;
}

/** The address of a part of the shelf. */
export function shelfAt(a: Asked): string {
	const query = new URLSearchParams();
	if (a.q) query.set('q', a.q);
	if (a.kind) query.set('kind', a.kind);
	if (a.job) query.set('for', a.job);
	return resolve('/shelf') + (query.size > 0 ? '?' + query.toString() : '');
}
