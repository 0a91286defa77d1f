// What the page of measurements asks of the server.
import { call, post } from '$lib/api/client';
import type {
	ArrayChoices,
	Divided,
	Gains,
	Layout,
	Moved,
	SeriesRead,
	Transfer,
	Transfers,
	Volumes
} from '$lib/api/types.gen';

const at = (job: string) => '/jobs/' + encodeURIComponent(job);

export const gains = (job: string) => call<Gains>(fetch, at(job) + '/gains');
/** Reads a file of measurements, or what was typed as one. Nothing is kept. */
export const measurements = (file: Blob) =>
	call<SeriesRead>(fetch, '/measurements', { method: 'POST', body: new Blob([file]) });
/** What drives come to together. */
export const arrays = (job: string, items: readonly string[], risk: Record<string, string>) => {
	const q = new URLSearchParams(items.map((i) => ['item', i]));
	for (const [name, value] of Object.entries(risk)) if (value) q.set(name, value);
	return call<ArrayChoices>(fetch, at(job) + '/arrays?' + q.toString());
};

/** What is written on blank drives: as somebody said, or as is suggested by a file system. */
export const volumes = (job: string, system: string) =>
	call<Volumes>(fetch, at(job) + '/volumes?system=' + system);
/** A layout to scale, whatever is wrong with it. Nothing is kept. */
export const divide = (job: string, layout: Layout) =>
	call<Divided>(fetch, at(job) + '/volumes', post(layout));

/** What data comes over between the drives of a job. */
export const transfers = (job: string) => call<Transfers>(fetch, at(job) + '/transfers');
/** What the machine says to a transfer, whatever is wrong with it. Nothing is kept. */
export const moves = (job: string, t: Transfer) =>
	call<Moved>(fetch, at(job) + '/transfers', post(t));
