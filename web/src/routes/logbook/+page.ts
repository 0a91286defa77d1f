import { orError } from '$lib/api/client';
import { logbook, models, NAMES, type Asked } from '$lib/logbook/api';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ fetch, url }) => {
	const asked = Object.fromEntries(
		NAMES.map((n) => [n, url.searchParams.get(n) ?? ''])
	) as unknown as Asked;
	const [first, sheets] = await Promise.all([
		orError(logbook(fetch, asked)),
		models(fetch).catch(() => [])
	]);
	return { asked, first, sheets };
};
