import { api, orError } from '$lib/api/client';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ fetch, url, depends }) => {
	depends('app:bench');
	const q = url.searchParams.get('q') ?? '';
	const [list, sheets] = await Promise.all([
		orError(api.jobs(fetch, q)),
		orError(api.sheets(fetch))
	]);
	const health = await orError(api.health(fetch)); // which tells what the lists met
	return {
		list,
		sheets,
		q,
		backup: health.backup,
		space: health.space,
		damaged: health.damaged ?? []
	};
};
