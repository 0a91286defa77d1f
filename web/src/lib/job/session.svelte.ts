// One open job: what the server says of it, and the way changes go there. Each is kept in the
// outbox until the server has answered it, and sent again under the same key until then.
import { createContext } from 'svelte';
import { api } from '$lib/api/client';
import { refusal, refused } from '$lib/api/refused';
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
import * as outbox from './outbox';
import type { Waiting } from './outbox';

export type State = 'found' | 'planned';

/** How often what waits is sent again, ms. */
const AGAIN = 2000;

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
	/** Changes that the server has not answered, oldest first. */
	waiting = $state.raw<readonly Waiting[]>([]);
	/** Why the server does not take them: it does not answer, or cannot keep anything; '' where it does. */
	trouble = $state('');
	conflict = $state.raw<ProblemDoc | null>(null);
	/** What somebody else did last, while it is asked whether to take it back. */
	ofAnother = $state('');
	/** What the last change came to, for the live region. */
	said = $state('');
	#queue: Promise<unknown> = Promise.resolve();
	#held: Promise<void> = Promise.resolve();

	constructor(start: JobView) {
		this.now = start;
		const job = start.view.job.id;
		void this.#next(async () => {
			const before = await outbox.waiting(job); // a reload; what was done meanwhile comes after it
			const here = this.waiting.map((w) => w.key);
			this.waiting = [...before.filter((w) => !here.includes(w.key)), ...this.waiting];
			return this.#flush();
		});
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
	/** A piece as people call it: its part and its serial number. */
	called(id: string): string {
		return [this.partOf(id)?.name, this.item(id)?.serial].filter(Boolean).join(' ');
	}
	/** The drives that hold data. */
	get drives(): readonly Item[] {
		return this.job.items.filter((i) => {
			const d = this.part(i.part)?.drive;
			return d && d.form !== 'slim' && d.form !== '5.25in';
		});
	}
	/** What was done about a step since the machine was last opened, if anything was. */
	tick(step: string): Tick | undefined {
		const w = this.#unsaved(step);
		if (w) {
			const { do: done, text } = w.change;
			if (done === 'untick') return undefined;
			return { step, by: w.by, at: w.at, ...(done === 'leave out' && { reason: text }) } as Tick;
		}
		return this.job.done.find((t) => t.step === step && !t.over);
	}
	/** What was done about a step is not saved yet. */
	unsaved(step: string): boolean {
		return this.trouble !== '' && this.#unsaved(step) !== undefined;
	}
	#unsaved(step: string): Waiting | undefined {
		return this.waiting.findLast(
			({ change: c, n, back }) =>
				n !== outbox.NOT_YET &&
				!back &&
				(c.do === 'tick' || c.do === 'untick' || c.do === 'leave out') &&
				(c.step === step || c.steps?.includes(step))
		);
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
		const stop = listen((e) => {
			if (!e || e.job === this.job.id) void this.#next(() => this.#catchUp(e));
		});
		const again = setInterval(() => {
			if (this.trouble && !this.busy) void this.again();
		}, AGAIN);
		return () => {
			stop();
			clearInterval(again);
		};
	}
	async #catchUp(e: Happened | null): Promise<boolean> {
		const before = this.now.revision;
		if ((e && e.revision <= before) || this.conflict || this.waiting.length > 0) return true;
		await this.look(this.view.at);
		const last = this.now.journal.at(-1);
		if (this.now.revision > before && last) {
			const news = `${last.by || 'Somebody'}: ${last.says}`;
			this.said = this.#spoken(news);
			toasts.add('done', news);
		}
		return true;
	}

	/** Looks at a stage that is to come, or at the one at work: 0. */
	async look(stage: number): Promise<void> {
		try {
			this.now = await api.job(fetch, this.job.id, stage);
		} catch (e) {
			refused(e);
		}
	}

	/**
	 * Sends a change, after those before it; false when it was refused. One that the server does
	 * not answer waits, and is as good as done.
	 */
	change(change: Change): Promise<boolean> {
		this.undone = 0;
		const stage = this.view.at;
		const full = stage > 0 && AHEAD.has(change.do) ? { ...change, stage } : change;
		const w: Waiting = {
			n: outbox.NOT_YET,
			job: this.job.id,
			change: structuredClone($state.snapshot(full)) as Change,
			key: crypto.randomUUID(),
			by: who.name,
			at: outbox.now(),
			pressed: outbox.pressed()
		};
		this.waiting = [...this.waiting, w];
		this.#held = outbox.keep(w).then((kept) => {
			this.waiting = this.waiting.map((x) => (x === w ? kept : x));
		});
		const held = this.#held;
		return this.#next(async () => {
			await held;
			return this.#flush();
		});
	}

	/** Waits until the last change is kept: from then on what it does to ticks is seen. */
	held(): Promise<void> {
		return this.#held;
	}

	/** Sends what waits. */
	again(): Promise<boolean> {
		return this.#next(() => this.#flush());
	}

	/** Takes the last change back; whether one that is somebody else's too, is asked first. */
	undo(others = false): Promise<boolean> {
		this.ofAnother = '';
		return this.#next(async () => {
			const last = this.waiting.findLast((w) => !w.back);
			if (last?.revision === undefined && last) {
				await this.#answered(last); // it never left
				return true;
			}
			if (last) {
				const back = await outbox.takenBack(last);
				this.waiting = this.waiting.map((x) => (x === last ? back : x));
				return this.#flush();
			}
			const back = await this.#run(() =>
				api.undo(this.job.id, this.#stamp(crypto.randomUUID()), others)
			);
			if (back && !this.ofAnother) this.undone++;
			return back;
		});
	}

	/** How many changes were undone here and can be done again. */
	undone = $state(0);
	redo(): Promise<boolean> {
		return this.#next(async () => {
			const again = await this.#run(() => api.redo(this.job.id, this.#stamp(crypto.randomUUID())));
			if (again) this.undone--;
			return again;
		});
	}

	/** Takes the shop's version of the job's sheet. */
	takeSheet(): Promise<boolean> {
		return this.#next(() =>
			this.#run(() => api.takeSheet(this.job.id, this.#stamp(crypto.randomUUID())))
		);
	}

	/** After a conflict: the other version, with or without this change on top. */
	async settle(keepMine: boolean) {
		const problem = this.conflict;
		if (!problem?.current) return;
		await this.#next(async () => {
			this.now = problem.current!;
			this.conflict = null;
			const first = this.waiting[0];
			if (first && !keepMine) await this.#answered(first);
			else if (first) {
				const anew = await outbox.sentFor(first, undefined);
				this.waiting = this.waiting.map((x) => (x === first ? anew : x));
			}
			return this.#flush();
		});
	}

	/** Sends what waits, in its order, as far as it is answered. */
	async #flush(): Promise<boolean> {
		let taken = true;
		for (
			let w = this.waiting[0];
			w && w.n !== outbox.NOT_YET && !this.conflict;
			w = this.waiting[0]
		) {
			if (w.revision === undefined) {
				const sent = await outbox.sentFor(w, this.now.revision);
				this.waiting = this.waiting.map((x) => (x === w ? sent : x));
				w = sent;
			}
			const { change, key, by, revision } = w;
			const stamp = { revision: revision ?? this.now.revision, key, by };
			taken = await this.#run(() => api.change(this.job.id, stamp, change));
			if (this.trouble) return true;
			if (this.conflict) break;
			if (taken && w.back) {
				const stamp = { revision: this.now.revision, key: `${key}-back`, by };
				await this.#run(() => api.undo(this.job.id, stamp, false));
				if (this.trouble) return true;
			}
			await this.#answered(w);
		}
		if (this.waiting.length === 0) this.trouble = '';
		return taken;
	}
	async #answered(w: Waiting): Promise<void> {
		await outbox.drop(w);
		this.waiting = this.waiting.filter((x) => x !== w);
	}

	/** What was done, and what the core makes of it now. */
	#spoken(news: string): string {
		const { says, why } = this.view.status.verdict;
		return [news, why ? `${says}: ${why}` : says].join('. ');
	}

	#next(f: () => Promise<boolean>): Promise<boolean> {
		const run = this.#queue.then(f);
		this.#queue = run.catch(() => undefined);
		return run;
	}

	#stamp(key: string) {
		return { revision: this.now.revision, key, by: who.name };
	}

	async #run(call: () => Promise<JobView>): Promise<boolean> {
		this.busy = true;
		try {
			const stage = this.view.at;
			this.now = await call();
			if (stage > 0 && this.view.stages.some((s) => s.at === stage)) await this.look(stage);
			this.trouble = '';
			this.said = this.#spoken(this.now.journal.at(-1)?.says ?? '');
			return true;
		} catch (e) {
			const { status, problem, says } = refusal(e);
			this.trouble = status === 0 ? 'Deep Bay does not answer' : status >= 502 ? says : ''; // not there; busy, or its disk full
			if (this.trouble) return false;
			if (problem.current) this.conflict = problem;
			else if (problem.type.endsWith(':of-another')) this.ofAnother = problem.detail;
			else refused(e);
			return false;
		} finally {
			this.busy = false;
		}
	}
}

export const [useSession, provideSession] = createContext<() => Session>();
