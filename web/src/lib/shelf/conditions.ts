import type { ShelfRow } from '$lib/api/types.gen';

export type Condition = NonNullable<ShelfRow['stock']['condition']>;

/** The conditions of a part as choices, in the words of the shop. */
export const CONDITIONS: { value: Condition | ''; name: string }[] = [
	{ value: '', name: 'not stated' },
	{ value: 'new', name: 'new' },
	{ value: 'used', name: 'used' },
	{ value: 'tested', name: 'tested' }
];
