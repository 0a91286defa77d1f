import { error } from '@sveltejs/kit';
import { api, orError } from '$lib/api/client';
import type { Sheet } from '$lib/api/types.gen';
import { machineRead } from '$lib/sheet/read';
import { slug } from '$lib/sheet/slug';
import type { PageLoad } from './$types';

// One sheet to edit (?id=), or a new one from a layout (?layout=), from another sheet (?copy=),
// or from what a machine told (?read), perhaps under a name (&name=).
export const load: PageLoad = async ({ fetch, url }) => {
	const id = url.searchParams.get('id');
	if (id) {
		const view = await orError(api.sheet(fetch, id));
		return {
			key: id,
			fresh: false,
			sheet: view.sheet,
			revision: view.revision,
			pictures: view.pictures
		};
	}
	const layout = url.searchParams.get('layout');
	const copy = url.searchParams.get('copy');
	let from: Sheet | undefined;
	if (url.searchParams.has('read')) from = machineRead() ?? undefined;
	else if (copy) from = (await orError(api.sheet(fetch, copy))).sheet;
	else from = (await orError(api.layouts(fetch))).find((s) => s.id === layout);
	if (!from) error(404, { message: 'There is no such layout to start from.', detail: 'not found' });
	const name =
		url.searchParams.get('name')?.trim() || (copy ? from.name + ', copy' : 'New machine');
	const short = slug(name) || 'machine';
	const taken = (await orError(api.sheets(fetch))).map((s) => s.id);
	let free = short;
	for (let n = 2; taken.includes(free); n++) free = `${short}-${n}`;
	return {
		key: 'new ' + free,
		fresh: true,
		sheet: { ...from, id: free, name },
		revision: 0,
		pictures: null
	};
};
