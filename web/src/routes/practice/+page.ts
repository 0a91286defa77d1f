import { orError } from '$lib/api/client';
import type { PracticeView } from '$lib/api/types.gen';
import { practice } from '$lib/step/api';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ fetch }): Promise<{ start: PracticeView }> => ({
	start: await orError(practice(fetch))
});
