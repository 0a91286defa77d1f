// The screens of a job by the stage that the core names, and back.
import type { Status } from '$lib/api/types.gen';

type Stage = Status['go'];

export const SCREENS = {
	fit: { route: '/jobs/[id]/fit', name: 'Fit', key: 'f' },
	'work order': { route: '/jobs/[id]/order', name: 'Work order', key: 'w' },
	prove: { route: '/jobs/[id]/prove', name: 'Prove', key: 'p' },
	'hand over': { route: '/jobs/[id]/handover', name: 'Hand over', key: 'h' },
	closed: { route: '/jobs/[id]/handover', name: 'Hand over', key: 'h' }
} as const satisfies Record<Stage, { route: string; name: string; key: string }>;

export const TABS: readonly Exclude<Stage, 'closed'>[] = [
	'fit',
	'work order',
	'prove',
	'hand over'
];
