// Everything that can be done by a key, in one list: the keys, the page that lists them, the
// palette and the hints on buttons come from it. Keys can be changed, and the letters switched
// off (WCAG 2.1.4). They are silent while somebody types, in a control that uses letters
// itself, with a modifier, and under a dialog.
import type { Attachment } from 'svelte/attachments';
import { on } from 'svelte/events';
import { SvelteMap } from 'svelte/reactivity';

export const COMMANDS = [
	{ id: 'bench', key: 'b', what: 'The bench: all jobs' },
	{ id: 'sheets', key: 's', what: 'The machine sheets' },
	{ id: 'shelf', key: 'l', what: 'The shelf' },
	{ id: 'logbook', key: 'g', what: 'The logbook' },
	{ id: 'rule', key: 'r', what: 'The slide rule' },
	{ id: 'fit', key: 'f', what: 'Fit, of the open job' },
	{ id: 'order', key: 'w', what: 'Work order' },
	{ id: 'step', key: 'i', what: 'The work order step by step' },
	{ id: 'prove', key: 'p', what: 'Prove' },
	{ id: 'measure', key: 'd', what: 'Before and after' },
	{ id: 'handover', key: 'h', what: 'Hand over' },
	{ id: 'new', key: 'n', what: 'A new job, on the bench; a new sheet, on the sheets' },
	{ id: 'edit', key: 'e', what: 'Edit the sheet that is shown' },
	{ id: 'search', key: '/', what: 'Search' },
	{ id: 'add', key: 'a', what: 'Add a part' },
	{ id: 'plan', key: 'o', what: 'Find the best plan' },
	{ id: 'choose', key: 'c', what: 'Choose parts from the shelf' },
	{ id: 'pick up', key: 'm', what: 'Pick up the next part from the mat' },
	{ id: 'take out', key: 't', what: 'Take out the part of the chosen socket' },
	{ id: 'put down', key: 'escape', what: 'Put down what is picked up' },
	{ id: 'zoom in', key: '+', what: 'Look closer at the chart' },
	{ id: 'zoom out', key: '-', what: 'Look from further away' },
	{ id: 'zoom fit', key: '0', what: 'The whole chart again' },
	{ id: 'undo', key: 'u', what: 'Undo the last change' },
	{ id: 'redo', key: 'y', what: 'Take the undo back, in a sheet' },
	{ id: 'keys', key: '?', what: 'Keys: this list' }
] as const;

export type CommandId = (typeof COMMANDS)[number]['id'];

const SLOT = 'deepbay.keys';
const PRESSED = /^(checkbox|radio|button|submit|file)$/; // inputs that take no text
const USES_LETTERS = '[role=listbox], [role=menu], [role=combobox], [role=tree], [role=grid]';

interface Kept {
	off: boolean;
	own: Partial<Record<CommandId, string>>;
}

class Keys {
	/** Letters do nothing. */
	off = $state(false);
	#own = $state<Kept['own']>({});

	constructor() {
		try {
			const kept = JSON.parse(localStorage.getItem(SLOT) ?? '{}') as Partial<Kept>;
			this.off = kept.off ?? false;
			this.#own = kept.own ?? {};
		} catch {
			// written by something else: as good as none
		}
	}
	of(id: CommandId): string {
		return this.#own[id] ?? COMMANDS.find((c) => c.id === id)!.key;
	}
	/** Gives a command another key, and one that had that key the one that came free. */
	set(id: CommandId, key: string) {
		const was = this.of(id);
		const other = COMMANDS.find((c) => c.id !== id && this.of(c.id) === key);
		this.#own = { ...this.#own, [id]: key, ...(other && { [other.id]: was }) };
		this.#keep();
	}
	switch(off: boolean) {
		this.off = off;
		this.#keep();
	}
	reset() {
		this.#own = {};
		this.#keep();
	}
	get changed() {
		return Object.keys(this.#own).length > 0;
	}
	#keep() {
		localStorage.setItem(SLOT, JSON.stringify({ off: this.off, own: this.#own }));
	}
}
export const keys = new Keys();

/** How a key is written. */
export const written = (key: string) => (key === 'escape' ? 'Esc' : key.toUpperCase());

const live = new SvelteMap<CommandId, () => unknown>();

/** The commands that can be given now. */
export const given = () => COMMANDS.filter((c) => live.has(c.id));
export const give = (id: CommandId) => live.get(id)?.();

/** While it stands, a command does this. */
export function command(id: CommandId, run: () => unknown): () => void {
	live.set(id, run);
	return () => {
		if (live.get(id) === run) live.delete(id);
	};
}

/** What a command does too, wherever that stands. */
export const hint =
	(id: CommandId): Attachment<HTMLElement> =>
	(el) => {
		if (!keys.off) el.setAttribute('aria-keyshortcuts', written(keys.of(id)));
		else el.removeAttribute('aria-keyshortcuts');
	};

/** The button, link or field that a command presses. */
export const shortcut =
	(id: CommandId): Attachment<HTMLElement> =>
	(el) => {
		hint(id)(el);
		return command(id, () => {
			el.focus(); // where a dialog that it opens gives the focus back
			if (!(el instanceof HTMLInputElement)) el.click();
		});
	};

const typing = (t: EventTarget | null) =>
	t instanceof HTMLElement &&
	(t.isContentEditable ||
		/^(TEXTAREA|SELECT)$/.test(t.tagName) ||
		(t instanceof HTMLInputElement && !PRESSED.test(t.type)) ||
		t.closest(USES_LETTERS) !== null);

/** Listens for all keys; find opens the palette. */
export const listen = (find: () => void) =>
	on(window, 'keydown', (e) => {
		if (document.querySelector('dialog[open]')) return;
		const key = e.key.toLowerCase();
		if ((e.ctrlKey || e.metaKey) && !e.altKey && key === 'k') {
			e.preventDefault();
			find();
			return;
		}
		if (e.ctrlKey || e.metaKey || e.altKey || typing(e.target) || (keys.off && key.length === 1))
			return;
		const c = COMMANDS.find((x) => keys.of(x.id) === key);
		if (!c || !live.has(c.id)) return;
		e.preventDefault();
		give(c.id);
	});
