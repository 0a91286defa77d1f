import { goto } from '$app/navigation';

/** Types into the address what is looked for, when the typing pauses. */
export function searching(path: string): (q: string) => void {
	let timer: ReturnType<typeof setTimeout>;
	return (q) => {
		clearTimeout(timer);
		timer = setTimeout(() => {
			const to = path + (q ? '?q=' + encodeURIComponent(q) : '');
			// eslint-disable-next-line svelte/no-navigation-without-resolve -- resolved by the caller, with a query
			goto(to, { keepFocus: true, noScroll: true, replaceState: true });
		}, 150);
	};
}
