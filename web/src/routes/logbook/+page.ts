import { orError } from '$lib/api/client';
import { askedBy, logbook, models } from '$lib/logbook/api';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ fetch, url }) => {
	const asked = askedBy(url.searchParams);
	const [first, sheets] = await Promise.all([
		orError(logbook(fetch, asked)),
		models(fetch).catch(() => [])
	]);
	return { asked, first, sheets };
};
