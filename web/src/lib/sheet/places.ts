// The places of a sheet's file: on which tab of the editor each is written, and in words.
import { tick } from 'svelte';
import type { Sheet } from '$lib/api/types.gen';
import { read } from './pointer';

export const TABS = [
	['machine', 'Machine'],
	['lanes', 'Lanes'],
	['m2', 'M.2'],
	['pcie', 'Slots'],
	['sata', 'Drives'],
	['memory', 'Memory'],
	['usb', 'USB'],
	['layers', 'Layers'],
	['settings', 'Settings'],
	['rules', 'Rules']
] as const;
export type Tab = (typeof TABS)[number][0];

/** The tab on which a place is written. */
export function tabOf(sheet: Sheet, pointer: string): Tab {
	const [, list, i] = pointer.split('/');
	switch (list) {
		case 'sockets': {
			const kind = sheet.sockets[Number(i)]?.kind ?? 'm2';
			return kind === 'dimm' || kind === 'sodimm' ? 'memory' : kind === 'u2' ? 'sata' : kind;
		}
		case 'bays':
			return 'sata';
		case 'roots':
		case 'groups':
		case 'processors':
			return 'lanes';
		case 'memory':
		case 'layers':
		case 'settings':
		case 'rules':
			return list;
	}
	return 'machine';
}

/** A place in words: "M2_1, lanes" for /sockets/0/lanes. */
export function placeOf(sheet: Sheet, pointer: string): string {
	const [list, i, ...rest] = pointer.slice(1).split('/');
	const id = i && read(sheet, `/${list}/${i}/id`);
	return id ? [id, ...rest].join(', ') : [list, i, ...rest].filter(Boolean).join(', ');
}

/** Goes to the field of a place, or to the nearest around it. */
export async function goTo(pointer: string): Promise<void> {
	await tick();
	for (let at = pointer; at; at = at.slice(0, at.lastIndexOf('/'))) {
		const field =
			document.querySelector<HTMLElement>(`[data-at="${at}"]`) ??
			document.querySelector<HTMLElement>(`[data-at^="${at}/"]`);
		if (field) {
			field.focus();
			field.scrollIntoView({ block: 'center' });
			return;
		}
	}
}
