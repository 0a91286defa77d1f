import { api, orError } from '$lib/api/client';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ fetch }) => ({ rows: await orError(api.shelf(fetch)) });
