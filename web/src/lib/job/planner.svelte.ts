// The planner's answer about the open job, and the pins under which it was found.
// Finding a plan makes it the job's plan; undo brings the one before back.
import { api, ApiError } from '$lib/api/client';
import type { Advice, Move, Placement, Way } from '$lib/api/types.gen';
import type { Session } from './session.svelte';

export class Planner {
	advice = $state.raw<Advice | null>(null);
	busy = $state(false);
	fault = $state('');
	pins = $state.raw<readonly Placement[]>([]);
	#session: () => Session;
	#abort: AbortController | null = null;

	constructor(session: () => Session) {
		this.#session = session;
	}

	/** Finds the best plan and makes it the job's; a newer question stops this one. */
	async find(): Promise<void> {
		this.#abort?.abort();
		const abort = (this.#abort = new AbortController());
		this.busy = true;
		this.fault = '';
		try {
			const got = await api.plan(
				this.#session().job.id,
				{ pins: [...this.pins] as Placement[] },
				abort.signal
			);
			if (abort.signal.aborted) return;
			this.advice = got;
			if (got.best) await this.take(got.best);
		} catch (e) {
			if (e instanceof DOMException) return;
			if (!(e instanceof ApiError)) throw e;
			this.fault = e.problem.errors?.[0]?.says ?? e.message;
		} finally {
			if (!abort.signal.aborted) this.busy = false;
		}
	}

	/** Whether the job's plan is this one. */
	isNow = (way: Way) => !way.moves.some((m) => this.#changes(m));

	/** Makes a way the job's plan. */
	async take(way: Way): Promise<void> {
		if (!this.isNow(way)) await this.#session().change({ do: 'moves', moves: way.moves });
	}

	/** A piece put somewhere by hand stays there, and the rest is planned around it. */
	pin(item: string, socket: string): Promise<void> {
		this.pins = [...this.pins.filter((p) => p.item !== item), { item, socket }];
		return this.find();
	}
	unpin(item: string): Promise<void> {
		this.pins = this.pins.filter((p) => p.item !== item);
		return this.find();
	}
	/** Back to planning by hand. */
	leave() {
		this.#abort?.abort();
		this.advice = null;
		this.busy = false;
		this.pins = [];
	}

	async whyNot(item: string, socket: string): Promise<string> {
		const question = { pins: this.pins.filter((p) => p.item !== item) as Placement[] };
		return (await api.whyNot(this.#session().job.id, { question, item, socket })).says;
	}

	#changes(m: Move): boolean {
		const { job } = this.#session();
		if (m.item) return job.planned.placements.find((p) => p.item === m.item)?.socket !== m.socket;
		const set = job.sheet.settings.find((s) => s.id === m.setting);
		const now = job.planned.settings.find((s) => s.setting === m.setting)?.value;
		return (now ?? set?.default) !== m.value;
	}
}
