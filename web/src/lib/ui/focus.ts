// Focus goes to the next sensible thing when the control that has it vanishes or is switched off:
// the one after it in the same group, else the one before, else the first of what is around it.
import { on } from 'svelte/events';

const FOCUSABLE =
	'a[href], button:not(:disabled), input:not(:disabled), select:not(:disabled), textarea:not(:disabled), summary, [tabindex]:not([tabindex="-1"])';

interface Held {
	readonly el: HTMLElement;
	/** What is around it, from the inside out. */
	readonly around: readonly Element[];
	/** What can have the focus, in the page's order, and where in it this one is. */
	readonly all: readonly HTMLElement[];
	readonly at: number;
}

const all = (within: ParentNode) => [...within.querySelectorAll<HTMLElement>(FOCUSABLE)];
const there = (el: HTMLElement) =>
	el.isConnected && !el.matches(':disabled') && el.checkVisibility({ visibilityProperty: true });
const usable = (el: HTMLElement) => el.matches(FOCUSABLE) && there(el);

function hold(el: HTMLElement): Held {
	const around: Element[] = [];
	for (let e = el.parentElement; e && e !== document.body; e = e.parentElement) {
		around.push(e);
		if (e.id === 'main') break; // what is beyond it is no part of the work
	}
	const list = all(document);
	return { el, around, all: list, at: list.indexOf(el) };
}

function next({ around, all: list, at }: Held): HTMLElement | undefined {
	const near = [...list.slice(at + 1), ...list.slice(0, Math.max(0, at)).reverse()];
	for (const e of around.filter((x) => x.isConnected)) {
		const found = near.find((x) => e.contains(x) && usable(x)) ?? all(e).find(usable);
		if (found) return found;
	}
	return undefined;
}

/** Watches over the focus of the page until it is told to stop. */
export function keepFocus(): () => void {
	let held: Held | undefined;
	let beneath: Held | undefined; // had it when a dialog opened over it
	let asked = 0;

	const off = on(document, 'focusin', (e) => {
		const el = e.target as HTMLElement;
		if (el.closest('dialog') && held && !held.el.closest('dialog')) beneath = held;
		held = hold(el);
	});
	const lost = () => !document.activeElement || document.activeElement === document.body;
	const look = () => {
		asked = 0;
		if (!held || there(held.el) || !lost()) return; // left on purpose, where it is still there
		const inDialog = held.around.some((x) => x instanceof HTMLDialogElement);
		const from = inDialog && beneath ? beneath : held;
		(usable(from.el) ? from.el : (next(from) ?? document.getElementById('main')))?.focus();
	};
	const seen = new MutationObserver(() => {
		if (held && !asked && lost()) asked = requestAnimationFrame(look); // whoever moves it on purpose comes first
	});
	seen.observe(document.body, {
		childList: true,
		subtree: true,
		attributes: true,
		attributeFilter: ['disabled', 'class', 'open']
	});
	return () => {
		off();
		seen.disconnect();
		cancelAnimationFrame(asked);
	};
}
