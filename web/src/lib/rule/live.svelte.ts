// The answer to a question while it is typed.
import { getAbortSignal } from 'svelte';
import { api, ApiError } from '$lib/api/client';
import type { Reply } from '$lib/api/types.gen';

const SETTLE = 150; // ms without a keystroke before the question is sent

/** Asks again when the question changes; to be made while a component is. An
 * empty question asks nothing. */
export class LiveAnswer {
	reply = $state.raw<Reply | null>(null);
	/** Why there is no reply, in words for the reader. */
	fault = $state('');

	/** @param question path and query after /api/ask/ */
	constructor(question: () => string) {
		$effect(() => {
			const asked = question();
			const signal = getAbortSignal();
			if (!asked) {
				this.#settle(null, '');
				return;
			}
			const timer = setTimeout(async () => {
				try {
					const got = await api.ask(asked, signal);
					if (signal.aborted) return;
					this.#settle(got.fault ? null : got, got.fault ?? '');
				} catch (e) {
					if (signal.aborted) return;
					if (!(e instanceof ApiError)) throw e;
					this.#settle(null, e.says);
				}
			}, SETTLE);
			return () => clearTimeout(timer);
		});
	}

	#settle(reply: Reply | null, fault: string) {
		this.reply = reply;
		this.fault = fault;
	}
}
