import { api, orError } from '$lib/api/client';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ fetch }) => ({ sheets: await orError(api.sheets(fetch)) });
