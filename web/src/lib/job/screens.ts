// The screens of a job by the stage that the core names, and back.
import type { Status } from '$lib/api/types.gen';
import type { CommandId } from '$lib/ui/commands.svelte';

type Stage = Status['go'];

export const SCREENS = {
	fit: { route: '/jobs/[id]/fit', name: 'Fit', key: 'fit' },
	'work order': { route: '/jobs/[id]/order', name: 'Work order', key: 'order' },
	prove: { route: '/jobs/[id]/prove', name: 'Prove', key: 'prove' },
	measure: { route: '/jobs/[id]/measure', name: 'Measure', key: 'measure' },
	'hand over': { route: '/jobs/[id]/handover', name: 'Hand over', key: 'handover' },
	closed: { route: '/jobs/[id]/handover', name: 'Hand over', key: 'handover' }
} as const satisfies Record<Stage | 'measure', { route: string; name: string; key: CommandId }>;

export const TABS: readonly Exclude<keyof typeof SCREENS, 'closed'>[] = [
	'fit',
	'work order',
	'prove',
	'measure',
	'hand over'
];
