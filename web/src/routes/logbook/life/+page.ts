import { orError } from '$lib/api/client';
import { life } from '$lib/logbook/api';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ fetch, url }) => ({
	view: await orError(life(fetch, url.searchParams)),
	file: '/api/life/file?' + url.searchParams.toString(),
	part: url.searchParams.has('serial')
});
