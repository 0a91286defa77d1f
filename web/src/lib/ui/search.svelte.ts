import { goto } from '$app/navigation';

/** Puts what is asked for into the address, without a step in the history. */
export function asking(to: string): Promise<void> {
	// eslint-disable-next-line svelte/no-navigation-without-resolve -- resolved by the caller, with a query
	return goto(to, { keepFocus: true, noScroll: true, replaceState: true });
}

/**
 * What is looked for, typed into the address when the typing pauses. What is typed stands until
 * it is what is shown: an answer that comes meanwhile leaves it alone.
 */
export class Search {
	#typed = $state<string>();
	#timer: ReturnType<typeof setTimeout> | undefined;
	readonly #shown: () => string;
	readonly #at: (q: string) => string;

	/** To be made while a component is set up. */
	constructor(shown: () => string, at: (q: string) => string) {
		this.#shown = shown;
		this.#at = at;
		$effect(() => {
			if (this.#typed === shown()) this.#typed = undefined;
		});
	}
	get q() {
		return this.#typed ?? this.#shown();
	}
	set q(q: string) {
		this.#typed = q;
		clearTimeout(this.#timer);
		this.#timer = setTimeout(() => asking(this.#at(q)), 150);
	}
}
