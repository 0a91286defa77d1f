import { api, orError } from '$lib/api/client';
import type { PageLoad } from './$types';

export const load: PageLoad = async ({ fetch, url }) => {
	const of = (name: string) => url.searchParams.get(name) ?? '';
	const asked = { q: of('q'), kind: of('kind'), job: of('for') };
	const [list, bench] = await Promise.all([
		orError(api.shelf(fetch, asked)),
		api.jobs(fetch, '').catch(() => null)
	]);
	const jobs = (bench?.jobs ?? []).filter((j) => j.status.stage !== 'closed' && !j.ill);
	return { list, asked, jobs: jobs.map(({ id, title }) => ({ id, title })) };
};
