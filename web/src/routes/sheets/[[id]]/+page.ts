import { api, orError } from '$lib/api/client';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ fetch, params }) => {
	const sheets = await orError(api.sheets(fetch));
	const id = params.id ?? sheets[0]?.id;
	return { sheets, view: id ? await orError(api.sheet(fetch, id)) : null };
};
