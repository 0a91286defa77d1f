import { redirect } from '@sveltejs/kit';
import { resolve } from '$app/paths';
import { SCREENS } from '$lib/job/screens';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ params, parent }) => {
	const { start } = await parent();
	redirect(307, resolve(SCREENS[start.view.status.go].route, { id: params.id }));
};
