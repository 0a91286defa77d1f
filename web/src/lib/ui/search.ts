import { goto } from '$app/navigation';

/** Puts what is asked for into the address, without a step in the history. */
export function asking(to: string): Promise<void> {
	// eslint-disable-next-line svelte/no-navigation-without-resolve -- resolved by the caller, with a query
	return goto(to, { keepFocus: true, noScroll: true, replaceState: true });
}

/** Types into the address what is looked for, when the typing pauses. */
export function searching(at: (q: string) => string): (q: string) => void {
	let timer: ReturnType<typeof setTimeout>;
	return (q) => {
		clearTimeout(timer);
		timer = setTimeout(() => asking(at(q)), 150);
	};
}
