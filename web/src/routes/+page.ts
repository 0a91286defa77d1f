import { api, orError } from '$lib/api/client';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ fetch, url, depends }) => {
	depends('app:bench');
	const q = url.searchParams.get('q') ?? '';
	const [cards, sheets, health] = await Promise.all([
		orError(api.jobs(fetch, q)),
		orError(api.sheets(fetch)),
		orError(api.health(fetch))
	]);
	return { cards, sheets, q, backup: health.backup };
};
