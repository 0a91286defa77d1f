// One key, one button. Silent while somebody types, with a modifier, or under a dialog.
import type { Attachment } from 'svelte/attachments';
import { on } from 'svelte/events';

const PRESSED = /^(checkbox|radio|button|submit|file)$/; // inputs that take no text

export const typing = (t: EventTarget | null) =>
	t instanceof HTMLElement &&
	(t.isContentEditable ||
		/^(TEXTAREA|SELECT)$/.test(t.tagName) ||
		(t instanceof HTMLInputElement && !PRESSED.test(t.type)));

export const plainKey = (e: KeyboardEvent) =>
	!e.ctrlKey &&
	!e.metaKey &&
	!e.altKey &&
	!typing(e.target) &&
	!document.querySelector('dialog[open]');

export const shortcut =
	(key: string): Attachment<HTMLElement> =>
	(el) => {
		el.setAttribute('aria-keyshortcuts', key);
		return on(window, 'keydown', (e) => {
			if (e.key.toLowerCase() !== key || !plainKey(e)) return;
			e.preventDefault();
			if (el instanceof HTMLInputElement) el.focus();
			else el.click();
		});
	};

/** The keys of the whole application, for the page that lists them. */
export const KEYS: readonly { key: string; what: string }[] = [
	{ key: 'B', what: 'the bench: all jobs' },
	{ key: 'S', what: 'the machine sheets' },
	{ key: 'L', what: 'the shelf' },
	{ key: 'R', what: 'the slide rule' },
	{ key: 'F', what: 'Fit, of the open job' },
	{ key: 'W', what: 'Work order' },
	{ key: 'P', what: 'Prove' },
	{ key: 'H', what: 'Hand over' },
	{ key: 'N', what: 'new job, on the bench; new sheet, on the sheets' },
	{ key: 'E', what: 'edit the sheet that is shown' },
	{ key: '/', what: 'search, on the bench' },
	{ key: 'A', what: 'add a part, in Fit' },
	{ key: 'O', what: 'find the best plan, in Fit' },
	{ key: 'C', what: 'choose parts from the shelf, in Fit' },
	{ key: 'M', what: 'pick up the next part from the mat, in Fit' },
	{ key: 'T', what: 'take out the part of the chosen socket, in Fit' },
	{ key: 'Esc', what: 'put down what is picked up; close a dialog' },
	{ key: 'U', what: 'undo the last change, of the job or the sheet' },
	{ key: 'Y', what: 'take the undo back, in a sheet' },
	{ key: 'Arrows', what: 'move the socket in focus, in a sheet; with Shift 5 mm' },
	{ key: 'Space', what: 'tick the step in focus, in Work order' },
	{ key: '?', what: 'this list' }
];
