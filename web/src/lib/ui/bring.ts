import { api } from '$lib/api/client';
import { refusal } from '$lib/api/refused';
import { toasts } from './toasts.svelte';
import { who } from './who.svelte';

/** Brings in a job, sheet or part file and says what came of it; true when it was taken. */
export async function bringIn(file: File, replace = false): Promise<boolean> {
	try {
		const got = await api.bringIn(file, who.name, replace);
		toasts.add('done', `Brought in: ${got.kind} ${got.name}`);
		return true;
	} catch (e) {
		const { problem, message } = refusal(e);
		if (problem.type.endsWith(':another-part') && confirm(`${message} Put the new one there?`))
			return bringIn(file, true);
		const all = problem.errors ?? [];
		toasts.add(
			'error',
			`${file.name} was not taken: ` +
				(all[0] ? `${all[0].pointer || '/'}: ${all[0].says}` : message) +
				(all.length > 1 ? ` (and ${all.length - 1} more)` : '')
		);
		return false;
	}
}
