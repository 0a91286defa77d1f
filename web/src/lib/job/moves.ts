// What moves would change of a job's plan.
import type { Job, Move } from '$lib/api/types.gen';

/** Whether a move changes the plan: a piece that lies elsewhere, a setting at another value. */
export function changes(job: Job, m: Move): boolean {
	if (m.item) return job.planned.placements.find((p) => p.item === m.item)?.socket !== m.socket;
	const set = job.sheet.settings.find((s) => s.id === m.setting);
	const now = job.planned.settings.find((s) => s.setting === m.setting)?.value;
	return (now ?? set?.default) !== m.value;
}
