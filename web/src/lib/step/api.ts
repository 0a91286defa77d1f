// What only the work at the open machine asks of the server: not in the weight of every view.
import { call, post } from '$lib/api/client';
import type {
	Because,
	BenchView,
	KeepDifference,
	PracticeView,
	PutPractice,
	SheetPicture
} from '$lib/api/types.gen';

const job = (id: string) => '/jobs/' + encodeURIComponent(id);

export const practice = (f: typeof fetch) => call<PracticeView>(f, '/practice');
export const putPractice = (body: PutPractice) =>
	call<PracticeView>(fetch, '/practice', { ...post(body), method: 'PUT' });
/** What the bench needs of the rest of the shop; nothing where it is not answered: guesses and lists stand without. */
export const bench = (id: string) =>
	call<BenchView>(fetch, job(id) + '/bench').catch(() => undefined);
export const keepDifference = (id: string, body: KeepDifference) =>
	call<Because>(fetch, job(id) + '/differs', post(body));

/** Pictures lie beside a sheet or a job: of is /sheets/ID or /jobs/ID. */
export const pictures = (of: string) => call<SheetPicture[]>(fetch, of + '/pictures');
export const keepPicture = (of: string, file: Blob, says: string, by: string, key: string) =>
	call<SheetPicture[]>(fetch, `${of}/pictures?` + new URLSearchParams({ says, by, key }), {
		method: 'POST',
		body: file
	});
export const dropPicture = (of: string, picture: string) =>
	call<SheetPicture[]>(fetch, `${of}/pictures/${picture}`, { method: 'DELETE' });
