// The answer to a question while it is typed.
import { getAbortSignal } from 'svelte';
import { api } from '$lib/api/client';
import { refusal } from '$lib/api/refused';
import type { Reply } from '$lib/api/types.gen';

const SETTLE = 150; // ms without a keystroke before the question is sent

/** Asks again when the question changes; to be made while a component is. An
 * empty question asks nothing. */
export class Live<T> {
	answer = $state.raw<T | null>(null);
	/** Why there is no answer, in words for the reader. */
	failed = $state('');

	constructor(question: () => string, ask: (question: string, signal: AbortSignal) => Promise<T>) {
		$effect(() => {
			const asked = question();
			const signal = getAbortSignal();
			if (!asked) {
				this.#settle(null, '');
				return;
			}
			const timer = setTimeout(async () => {
				try {
					const got = await ask(asked, signal);
					if (!signal.aborted) this.#settle(got, '');
				} catch (e) {
					if (signal.aborted) return;
					this.#settle(null, refusal(e).says);
				}
			}, SETTLE);
			return () => clearTimeout(timer);
		});
	}

	#settle(answer: T | null, failed: string) {
		this.answer = answer;
		this.failed = failed;
	}
}

/** A reply of the slide rule; words that cannot be answered are no reply. */
export class LiveAnswer extends Live<Reply> {
	/** @param question path and query after /api/ask/ */
	constructor(question: () => string) {
		super(question, api.ask);
	}
	get reply() {
		return this.answer?.fault ? null : this.answer;
	}
	get fault() {
		return this.failed || (this.answer?.fault ?? '');
	}
}
