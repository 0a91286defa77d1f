// One open job: what the server says of it, and the way changes go there. A
// change that did not arrive is kept and can be sent again under the same key.
import { createContext } from 'svelte';
import { api, ApiError } from '$lib/api/client';
import { listen } from '$lib/api/live';
import type {
	Change,
	Happened,
	Item,
	JobView,
	Part,
	ProblemDoc,
	SocketState,
	TestRun,
	Tick
} from '$lib/api/types.gen';
import { toasts } from '$lib/ui/toasts.svelte';
import { who } from '$lib/ui/who.svelte';

export type State = 'found' | 'planned';

interface Unsent {
	readonly change: Change;
	readonly key: string;
}

/** What can be done in the plan of a stage that is to come. */
const AHEAD: ReadonlySet<Change['do']> = new Set([
	'place',
	'take out',
	'aside',
	'moves',
	'bay',
	'set'
]);

export class Session {
	now = $state.raw<JobView>() as JobView;
	busy = $state(false);
	unsent = $state.raw<Unsent | null>(null);
	conflict = $state.raw<ProblemDoc | null>(null);
	/** What somebody else did last, while it is asked whether to take it back. */
	ofAnother = $state('');
	/** What the last change came to, for the live region. */
	said = $state('');
	#queue: Promise<unknown> = Promise.resolve();

	constructor(start: JobView) {
		this.now = start;
	}

	get job() {
		return this.now.view.job;
	}
	get view() {
		return this.now.view;
	}
	get closed() {
		return this.job.closed !== undefined;
	}

	part(id: string): Part | undefined {
		return this.job.parts.find((p) => p.id === id);
	}
	item(id: string | undefined): Item | undefined {
		return this.job.items.find((i) => i.id === id);
	}
	partOf(id: string | undefined): Part | undefined {
		const item = this.item(id);
		return item && this.part(item.part);
	}
	/** What was done about a step since the machine was last opened, if anything was. */
	tick(step: string): Tick | undefined {
		return this.job.done.find((t) => t.step === step && !t.over);
	}
	test(step: string): TestRun | undefined {
		return this.job.tests?.find((t) => t.step === step && !t.over);
	}
	socket(state: State, id: string): SocketState | undefined {
		return this.view[state].sockets.find((s) => s.socket === id);
	}
	onMat(state: State): readonly Item[] {
		const placed = this.job[state].placements;
		return this.job.items.filter(
			(i) => !placed.some((p) => p.item === i.id) && !(state === 'found' && i.new)
		);
	}

	/** Follows what others do to this job until it is told to stop. */
	follow(): () => void {
		return listen((e) => {
			if (!e || e.job === this.job.id) void this.#next(() => this.#catchUp(e));
		});
	}
	async #catchUp(e: Happened | null): Promise<boolean> {
		const before = this.now.revision;
		if ((e && e.revision <= before) || this.conflict || this.unsent) return true;
		await this.look(this.view.at);
		const last = this.now.journal.at(-1);
		if (this.now.revision > before && last) {
			this.said = `${last.by || 'Somebody'}: ${last.says}`;
			toasts.add('done', this.said);
		}
		return true;
	}

	/** Looks at a stage that is to come, or at the one at work: 0. */
	async look(stage: number): Promise<void> {
		try {
			this.now = await api.job(fetch, this.job.id, stage);
		} catch (e) {
			if (!(e instanceof ApiError)) throw e;
			toasts.add('error', e.says);
		}
	}

	/** Sends a change; false when it was not applied. Changes go one after another. */
	change(change: Change): Promise<boolean> {
		return this.#next(() => this.#send({ change, key: crypto.randomUUID() }));
	}

	again(): Promise<boolean> {
		const unsent = this.unsent;
		return unsent ? this.#next(() => this.#send(unsent)) : Promise.resolve(true);
	}

	/** Takes the last change back; whether one that is somebody else's too, is asked first. */
	undo(others = false): Promise<boolean> {
		this.ofAnother = '';
		return this.#next(() =>
			this.#run(() => api.undo(this.job.id, this.#stamp(crypto.randomUUID()), others), null)
		);
	}

	/** Takes the shop's version of the job's sheet. */
	takeSheet(): Promise<boolean> {
		return this.#next(() =>
			this.#run(() => api.takeSheet(this.job.id, this.#stamp(crypto.randomUUID())), null)
		);
	}

	/** After a conflict: the other version, with or without this change on top. */
	async settle(keepMine: boolean) {
		const problem = this.conflict;
		if (!problem?.current) return;
		this.now = problem.current;
		this.conflict = null;
		if (keepMine && problem.yours) await this.change(problem.yours);
	}

	#next(f: () => Promise<boolean>): Promise<boolean> {
		const run = this.#queue.then(f);
		this.#queue = run.catch(() => undefined);
		return run;
	}

	#stamp(key: string) {
		return { revision: this.now.revision, key, by: who.name };
	}

	#send(u: Unsent) {
		const stage = this.view.at;
		const change = stage > 0 && AHEAD.has(u.change.do) ? { ...u.change, stage } : u.change;
		return this.#run(() => api.change(this.job.id, this.#stamp(u.key), change), u);
	}

	async #run(call: () => Promise<JobView>, unsent: Unsent | null): Promise<boolean> {
		this.busy = true;
		try {
			const stage = this.view.at;
			this.now = await call();
			if (stage > 0 && this.view.stages.some((s) => s.at === stage)) await this.look(stage);
			this.unsent = null;
			this.said = this.now.journal.at(-1)?.says ?? '';
			return true;
		} catch (e) {
			if (!(e instanceof ApiError)) throw e;
			if (e.status === 0) this.unsent = unsent;
			else if (e.problem.current) this.conflict = e.problem;
			else if (e.problem.type.endsWith(':of-another')) this.ofAnother = e.problem.detail;
			else toasts.add('error', e.says);
			return false;
		} finally {
			this.busy = false;
		}
	}
}

export const [useSession, provideSession] = createContext<() => Session>();
