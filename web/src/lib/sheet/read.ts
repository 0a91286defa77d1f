// A sheet drafted from what a machine told, on its way from the dialog to the editor.
import { call } from '$lib/api/client';
import type { Drafted, Sheet } from '$lib/api/types.gen';

const SLOT = 'deepbay.read';

export const readMachine = (file: Blob) =>
	call<Drafted>(fetch, '/drafts', { method: 'POST', body: file });

export function keepRead(sheet: Sheet) {
	sessionStorage.setItem(SLOT, JSON.stringify(sheet));
}

/** What was kept, null if there is none. */
export function machineRead(): Sheet | null {
	try {
		return JSON.parse(sessionStorage.getItem(SLOT) ?? 'null') as Sheet | null;
	} catch {
		return null;
	}
}
