import type { Missing } from '$lib/api/types.gen';

/** Names the fact, for lists: what is typed for one never becomes another's when a list changes. */
export const factKey = ({ item, position, socket, setting, modulesPerChannel, attr }: Missing) =>
	[item, position, socket, setting, modulesPerChannel, attr].join('|');
