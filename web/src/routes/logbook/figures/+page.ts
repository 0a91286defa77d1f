import { orError } from '$lib/api/client';
import { figures } from '$lib/logbook/api';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ fetch, url }) => {
	const months = Number(url.searchParams.get('months') ?? 24);
	return { months, figures: await orError(figures(fetch, months)) };
};
