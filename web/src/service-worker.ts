/// <reference types="@sveltejs/kit" />
/// <reference no-default-lib="true"/>
/// <reference lib="esnext" />
/// <reference lib="webworker" />
// So that the page opens while the server is away, and jobs that were looked at can be read:
// the program's own files are kept as they are built, answers about jobs as they came last.
// Nothing is ever answered from what is kept while the server answers.
import { build, files, version } from '$service-worker';

const worker = self as unknown as ServiceWorkerGlobalScope;
const PROGRAM = 'program-' + version;
const READ = 'read';
const PAGE = '/';
const MOST = 60; // answers
const own = new Set([...build, ...files]);

worker.addEventListener('install', (e) => {
	e.waitUntil(
		caches
			.open(PROGRAM)
			.then((c) => c.addAll([PAGE, ...own]))
			.then(() => worker.skipWaiting())
	);
});

worker.addEventListener('activate', (e) => {
	e.waitUntil(
		caches
			.keys()
			.then((all) =>
				Promise.all(all.filter((k) => k !== PROGRAM && k !== READ).map((k) => caches.delete(k)))
			)
			.then(() => worker.clients.claim())
			.then(() => lookedAt())
	);
});

/** Keeps the jobs that are open in a tab which this worker has only just come to: their
 * answers came before it. */
async function lookedAt(): Promise<void> {
	const read = await caches.open(READ);
	for (const tab of await worker.clients.matchAll({ type: 'window' })) {
		const job = /^\/jobs\/([^/]+)/.exec(new URL(tab.url).pathname)?.[1];
		const paths = job ? ['/api/jobs/' + job] : ['/api/jobs'];
		await Promise.all(paths.map((path) => read.add(path).catch(() => undefined)));
	}
}

/** The answer of the server, kept under a name; what was kept where it does not answer. */
async function fresh(request: Request, cache: string, name: Request | string): Promise<Response> {
	const kept = await caches.open(cache);
	try {
		const answer = await fetch(request);
		if (answer.ok) await kept.put(name, answer.clone());
		else if (answer.status === 404) await kept.delete(name); // it is gone, here as well
		const all = await kept.keys();
		if (cache === READ) for (const old of all.slice(0, -MOST)) await kept.delete(old);
		return answer;
	} catch {
		return (await kept.match(name)) ?? Response.error();
	}
}

worker.addEventListener('fetch', (e) => {
	const url = new URL(e.request.url);
	if (e.request.method !== 'GET' || url.origin !== location.origin) return;
	if (own.has(url.pathname))
		e.respondWith(caches.match(url.pathname).then((kept) => kept ?? fetch(e.request)));
	else if (e.request.mode === 'navigate') e.respondWith(fresh(e.request, PROGRAM, PAGE));
	else if (
		(url.pathname === '/api/jobs' && !url.search) ||
		/^\/api\/jobs\/[^/]+$/.test(url.pathname)
	)
		e.respondWith(fresh(e.request, READ, e.request));
});
