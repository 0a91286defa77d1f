// Takes into a job what its machine told about itself.
import { refused } from '$lib/api/refused';
import type { Session, State } from '$lib/job/session.svelte';
import { toasts } from '$lib/ui/toasts.svelte';
import * as api from './api';

export async function takeFile(session: Session, file: File, of: State = 'planned'): Promise<void> {
	try {
		const observation = await api.observation(file);
		if (await session.change({ do: 'observe', in: of, observation }))
			toasts.add('done', session.now.journal.at(-1)?.says ?? file.name);
	} catch (e) {
		refused(e);
	}
}
