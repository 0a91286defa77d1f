import { api, orError } from '$lib/api/client';
import type { LayoutLoad } from './$types';

export const load: LayoutLoad = async ({ fetch, params }) => ({
	start: await orError(api.job(fetch, params.id))
});
