// Reading and writing a document by JSON pointer (RFC 6901), as faults name places.
type Node = Record<string, unknown>;

const steps = (pointer: string) =>
	pointer
		.split('/')
		.slice(1)
		.map((s) => s.replaceAll('~1', '/').replaceAll('~0', '~'));

export function read(doc: object, pointer: string): unknown {
	let at: unknown = doc;
	for (const s of steps(pointer)) at = (at as Node | undefined)?.[s];
	return at;
}

/** Writes a value; undefined takes the fact out. Objects on the way are made. */
export function write(doc: object, pointer: string, value: unknown) {
	const path = steps(pointer);
	const last = path.pop();
	if (last === undefined) return;
	let at = doc as Node;
	for (const s of path) at = (at[s] ??= {}) as Node;
	if (value === undefined) delete at[last];
	else at[last] = value;
}
