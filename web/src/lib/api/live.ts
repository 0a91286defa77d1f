// What others do, as it happens: one stream for the whole page, shared by whoever listens.
import type { Happened } from './types.gen';

/** One thing that happened; null: something may have, while nothing could be heard. */
type Ear = (e: Happened | null) => void;
const ears = new Set<Ear>();
let stream: EventSource | null = null;
let missed = false;

function open() {
	if (stream || ears.size === 0 || !navigator.onLine) return;
	stream = new EventSource('/api/live');
	stream.onerror = () => (missed = true); // it tries again by itself
	stream.onopen = () => {
		if (missed) for (const hear of ears) hear(null);
		missed = false;
	};
	stream.onmessage = (m: MessageEvent<string>) => {
		const e = JSON.parse(m.data) as Happened;
		for (const hear of ears) hear(e);
	};
}
function close() {
	missed ||= stream !== null && ears.size > 0;
	stream?.close();
	stream = null;
}
if (typeof window !== 'undefined') {
	window.addEventListener('offline', close);
	window.addEventListener('online', open);
	window.addEventListener('pagehide', close);
	window.addEventListener('pageshow', open);
}

/** Hears what happens until it is told to stop. */
export function listen(hear: Ear): () => void {
	ears.add(hear);
	open();
	return () => {
		ears.delete(hear);
		if (ears.size === 0) close();
	};
}
