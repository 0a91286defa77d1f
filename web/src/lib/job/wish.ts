// The wish as a form holds it, and back. Memory is typed in GiB and drives in
// GB, as their labels say; the core takes bytes.
import type { Wish } from '$lib/api/types.gen';

export const GIB = 2 ** 30;
export const GB = 1e9;

export interface WishDraft {
	text: string;
	memory: string | number;
	drive: string | number;
	fast: boolean;
	untouched: string;
	backedUp: string;
	encrypted: '' | 'yes' | 'no';
	most: string | number;
	tests: NonNullable<Wish['tests']>;
}

export function draftOf(w: Wish | undefined): WishDraft {
	return {
		text: w?.text ?? '',
		memory: w?.memoryBytes ? w.memoryBytes / GIB : '',
		drive: w?.systemBytes ? w.systemBytes / GB : '',
		fast: w ? (w.systemFast ?? false) : true,
		untouched: w?.untouched ?? '',
		backedUp: w?.backedUp ?? '',
		encrypted: w?.encrypted === undefined ? '' : w.encrypted ? 'yes' : 'no',
		most: w?.systemMaxBytes ? w.systemMaxBytes / GIB : '',
		tests: [...(w?.tests ?? [])]
	};
}

/** The wish of a draft; what the form does not show comes from before. */
export function wishOf(d: WishDraft, before?: Wish): Wish {
	const memory = Math.round((Number(d.memory) || 0) * GIB);
	const drive = Math.round((Number(d.drive) || 0) * GB);
	const most = Math.round((Number(d.most) || 0) * GIB);
	return {
		text: d.text,
		...(most !== 0 && { systemMaxBytes: most }),
		...(d.tests.length > 0 && { tests: d.tests }),
		...(before?.starts && { starts: before.starts }),
		...(memory !== 0 && { memoryBytes: memory }),
		...(drive !== 0 && { systemBytes: drive, systemFast: d.fast }),
		...(d.untouched && { untouched: d.untouched }),
		...(d.backedUp && { backedUp: d.backedUp }),
		...(d.encrypted && { encrypted: d.encrypted === 'yes' }),
		...(before?.keep && { keep: before.keep })
	};
}
