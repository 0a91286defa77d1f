// The one place where a refusal is met. What is no refusal is a fault of the program and goes on
// to where such are told.
import { toasts } from '$lib/ui/toasts.svelte';
import { ApiError } from './client';

/** What the server, or its silence, says against a request. */
export function refusal(e: unknown): ApiError {
	if (e instanceof ApiError) return e;
	throw e;
}

/** Tells it in a short message that stays until it is dismissed. */
export function refused(e: unknown): void {
	toasts.add('error', refusal(e).says);
}
