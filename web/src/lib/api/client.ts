// The one place that talks to the server.
import { error } from '@sveltejs/kit';
import type {
	Advice,
	Because,
	Health,
	Intake,
	Need,
	PlanQuestion,
	Shopping,
	WhyNot,
	Written,
	FormQuestion,
	ShortForm,
	SheetView,
	SheetCheck,
	CSVReport,
	Entry,
	QuickAdd,
	ShelfList,
	ShelfRow,
	Stock,
	Reply,
	Fit,
	Forget,
	Forgotten,
	Gone,
	OwnerJobs,
	JobList,
	Change,
	Imported,
	JobView,
	Keep,
	KeepProven,
	NewerSheet,
	NewJob,
	Offer,
	Part,
	Progress,
	ProblemDoc,
	Sheet,
	SheetName
} from './types.gen';

type Fetch = typeof fetch;

/** An answer that is a problem document, or no answer at all (status 0). */
export class ApiError extends Error {
	readonly problem: ProblemDoc;
	constructor(problem: ProblemDoc) {
		super(problem.detail);
		this.problem = problem;
	}
	get status() {
		return this.problem.status;
	}
	/** All that is wrong, for the reader. */
	get says() {
		return this.problem.errors?.map((x) => x.says).join('; ') || this.message;
	}
}

/** How often a request is sent again while the server says that it is busy. */
const TRIES = 8;

/** Sends a request, and waits out a server that is busy and says how long: nothing was changed then. */
async function send(f: Fetch, path: string, init?: RequestInit): Promise<Response> {
	for (let left = TRIES; ; left--) {
		const answer = await f('/api' + path, init);
		const seconds = Number(answer.headers.get('Retry-After'));
		if (answer.status !== 503 || !(seconds > 0) || left === 0) return answer;
		// Not all at the same moment.
		await new Promise((done) => setTimeout(done, seconds * (1000 + 1000 * Math.random())));
		init?.signal?.throwIfAborted();
	}
}

export async function call<T>(f: Fetch, path: string, init?: RequestInit): Promise<T> {
	let answer: Response;
	try {
		answer = await send(f, path, init);
	} catch (e) {
		if (e instanceof DOMException && e.name === 'AbortError') throw e;
		throw new ApiError({
			type: 'urn:deepbay:problem:no-connection',
			title: 'no connection',
			status: 0,
			detail: 'Deep Bay does not answer. Is the program running?'
		});
	}
	if (answer.ok) return (await answer.json()) as T;
	const text = await answer.text();
	let problem: ProblemDoc;
	try {
		problem = JSON.parse(text) as ProblemDoc;
	} catch {
		problem = { type: 'about:blank', title: 'fault', status: answer.status, detail: text };
	}
	throw new ApiError(problem);
}

export const post = (body: unknown): RequestInit => ({
	method: 'POST',
	headers: { 'Content-Type': 'application/json' },
	body: JSON.stringify(body)
});

/** Who waits for a heavy question: told how far it is, and able to stop it. */
export interface Watch {
	signal: AbortSignal;
	tell: (progress: Progress) => void;
}

/** How often it is asked how far a question is; most are answered before the first time. */
const LOOK = 700;

async function watched<T>(
	path: string,
	stage: number,
	body: unknown,
	{ signal, tell }: Watch
): Promise<T> {
	const name = crypto.randomUUID();
	const timer = setInterval(async () => {
		const said = await fetch('/api/searches/' + name, { signal }).catch(() => null);
		if (said?.status === 200) tell((await said.json()) as Progress);
	}, LOOK);
	try {
		return await call<T>(fetch, `${path}?search=${name}&stage=${stage}`, { ...post(body), signal });
	} finally {
		clearInterval(timer);
	}
}

const job = (id: string) => '/jobs/' + encodeURIComponent(id);

export interface Stamped {
	revision: number;
	key: string;
	by: string;
}

export const api = {
	jobs: (f: Fetch, q: string, after = '') =>
		call<JobList>(f, '/jobs?' + new URLSearchParams({ q, after })),
	job: (f: Fetch, id: string, stage = 0) =>
		call<JobView>(f, job(id) + (stage > 0 ? `?stage=${stage}` : '')),
	sheets: (f: Fetch) => call<SheetName[]>(f, '/sheets'),
	sheet: (f: Fetch, id: string) => call<SheetView>(f, '/sheets/' + encodeURIComponent(id)),
	sheetAt: (f: Fetch, id: string, revision: number) =>
		call<SheetView>(f, `/sheets/${encodeURIComponent(id)}?at=${revision}`),
	layouts: (f: Fetch) => call<Sheet[]>(f, '/layouts'),
	checkSheet: (sheet: Sheet, signal?: AbortSignal) =>
		call<SheetCheck>(fetch, '/sheets', { ...post(sheet), signal }),
	putSheet: (sheet: Sheet, stamp: Stamped & { back?: number }) =>
		call<SheetView>(fetch, '/sheets/' + encodeURIComponent(sheet.id), {
			...post({ ...stamp, sheet }),
			method: 'PUT'
		}),
	health: (f: Fetch) => call<Health>(f, '/health'),
	parts: (f: Fetch) => call<Part[]>(f, '/parts'),
	create: (body: NewJob) => call<JobView>(fetch, '/jobs', post(body)),
	change: (id: string, stamp: Stamped, change: Change) =>
		call<JobView>(fetch, job(id) + '/changes', post({ ...stamp, change })),
	undo: (id: string, stamp: Stamped, others: boolean) =>
		call<JobView>(fetch, job(id) + '/undo', post({ ...stamp, ...(others && { others }) })),
	redo: (id: string, stamp: Stamped) =>
		call<JobView>(fetch, job(id) + '/undo', post({ ...stamp, redo: true })),
	back: (id: string, by: string, key: string) =>
		call<JobView>(fetch, job(id) + '/back', post({ by, key })),
	mend: (what: string, id: string, by: string, key: string) =>
		call<Health>(fetch, `/damaged/${what}/${encodeURIComponent(id)}/back`, post({ by, key })),
	keep: (id: string, body: Keep) => call<Because>(fetch, job(id) + '/keep', post(body)),
	newerSheet: (id: string) => call<NewerSheet>(fetch, job(id) + '/sheet'),
	takeSheet: (id: string, stamp: Stamped) => call<JobView>(fetch, job(id) + '/sheet', post(stamp)),
	again: (id: string, stamp: Stamped) => call<JobView>(fetch, job(id) + '/again', post(stamp)),
	keepPart: (id: string, item: string, by: string) =>
		call<Because>(fetch, job(id) + '/keep-part', post({ item, by })),
	keepProven: (id: string, body: KeepProven) =>
		call<Because>(fetch, job(id) + '/proven', post(body)),
	plan: (id: string, stage: number, question: PlanQuestion, watch: Watch) =>
		watched<Advice>(job(id) + '/plan', stage, question, watch),
	shop: (id: string, stage: number, need: Need, watch: Watch) =>
		watched<Shopping>(job(id) + '/shop', stage, need, watch),
	whyNot: (id: string, stage: number, question: WhyNot) =>
		call<Because>(fetch, `${job(id)}/why-not?stage=${stage}`, post(question)),
	offers: (id: string, stage: number, item: string, state: string, signal?: AbortSignal) =>
		call<Offer[]>(
			fetch,
			`${job(id)}/offers/${encodeURIComponent(item)}?in=${state}&stage=${stage}`,
			{ signal }
		),
	/** The short form of a part as it is filled in; nothing is changed by it. */
	form: (question: FormQuestion, signal?: AbortSignal) =>
		call<ShortForm>(fetch, '/form', { ...post(question), signal }),
	/** What lines mean that somebody writes down; of is /jobs/ID or /sheets/ID. */
	written: (of: string, text: string, signal?: AbortSignal) =>
		call<Written[]>(fetch, `${of}/written?text=${encodeURIComponent(text)}`, { signal }),
	intake: (text: string, signal?: AbortSignal) =>
		call<Intake>(fetch, '/intake?text=' + encodeURIComponent(text), { signal }),
	ask: (question: string, signal?: AbortSignal) =>
		call<Reply>(fetch, '/ask/' + question, { signal }),
	keys: (key: string, protocols: string, signal?: AbortSignal) =>
		call<Fit[]>(fetch, `/ask/keys?key=${key}&protocols=${protocols}`, { signal }),
	shelf: (f: Fetch, a: { q: string; kind: string; job: string }, after = '') =>
		call<ShelfList>(
			f,
			'/shelf?' + new URLSearchParams({ q: a.q, kind: a.kind, for: a.job, after })
		),
	shelfPart: (id: string) => call<ShelfRow>(fetch, '/shelf/parts/' + encodeURIComponent(id)),
	quickAdd: (body: QuickAdd) => call<ShelfRow>(fetch, '/shelf/words', post(body)),
	restock: (stock: Stock, stamp: Stamped) =>
		call<ShelfRow>(fetch, '/shelf', post({ ...stamp, stock })),
	shelfHistory: (id: string) =>
		call<Entry[]>(fetch, `/shelf/parts/${encodeURIComponent(id)}/history`),
	shelfList: (file: Blob, by: string, take: boolean) =>
		call<CSVReport>(fetch, `/shelf/csv?by=${encodeURIComponent(by)}${take ? '&take=true' : ''}`, {
			method: 'POST',
			body: file
		}),
	owner: (name: string) => call<OwnerJobs>(fetch, '/owner?name=' + encodeURIComponent(name)),
	forget: (body: Forget) => call<Forgotten>(fetch, '/owner/forget', post(body)),
	gone: () => call<Gone[]>(fetch, '/gone'),
	bringIn: (file: Blob, by: string, replace = false) =>
		call<Imported>(fetch, `/files?by=${encodeURIComponent(by)}${replace ? '&replace=true' : ''}`, {
			method: 'POST',
			body: file
		})
};

/** In a load function: a problem becomes the error page. */
export async function orError<T>(p: Promise<T>): Promise<T> {
	try {
		return await p;
	} catch (e) {
		if (e instanceof ApiError)
			error(e.status || 503, { message: e.message, detail: e.problem.title });
		throw e;
	}
}
