// The planner's answer about the open job, and the pins under which it was found.
// Finding a plan makes it the job's plan; undo brings the one before back.
import { api } from '$lib/api/client';
import { refusal } from '$lib/api/refused';
import type {
	Advice,
	Change,
	Help,
	Part,
	Placement,
	PlanQuestion,
	Progress,
	Way
} from '$lib/api/types.gen';
import { changes } from './moves';
import type { Session } from './session.svelte';

export type Role = 'stay' | 'leave';

/** What the planner may do with a piece that was found. */
export const ALLOWED = [
	{ value: '', name: 'is treated as usual' },
	{ value: 'stay', name: 'stays where it was found' },
	{ value: 'leave', name: 'may come out' }
] as const;

/** What a piece is for once the job is done; the planner plans by it. */
export const AFTERWARDS = [
	{ value: '', name: 'not said' },
	{ value: 'system', name: 'the system' },
	{ value: 'data', name: 'data' },
	{ value: 'scratch', name: 'scratch: its rate matters' },
	{ value: 'array', name: 'an array: the slowest counts' },
	{ value: 'leaves', name: 'nothing here: it leaves' },
	{ value: 'tool', name: 'a tool, which leaves again' }
] as const;

/** What a plan can be better in, as the technician would say it. */
export const CRITERIA: readonly { value: string; name: string }[] = [
	{ value: '', name: 'the usual order' },
	{ value: 'system', name: 'the system drive' },
	{ value: 'graphics', name: 'the graphics card' },
	{ value: 'roles', name: 'scratch and array' },
	{ value: 'rates', name: 'all drives at once' },
	{ value: 'memory', name: 'memory' },
	{ value: 'in use', name: 'nothing in use lost' },
	{ value: 'cooling', name: 'cool drives' },
	{ value: 'warnings', name: 'no warnings' },
	{ value: 'opened', name: 'little touched' },
	{ value: 'layers', name: 'little to open' },
	{ value: 'settings', name: 'few settings' },
	{ value: 'cost', name: 'nothing from the shelf' }
];

export class Planner {
	advice = $state.raw<Advice | null>(null);
	busy = $state(false);
	fault = $state('');
	/** How far a question is that takes long. */
	progress = $state.raw<Progress | null>(null);
	pins = $state.raw<readonly Placement[]>([]);
	/** Where pieces are not to go. */
	bans = $state.raw<readonly Placement[]>([]);
	/** What may be done with pieces, and what they are for, where it is not the usual. */
	roles = $state.raw<Readonly<Record<string, Role>>>({});
	/** Sockets that stay on and free for later. */
	ports = $state.raw<readonly string[]>([]);
	/** Carriers, adapters and boxes of the shelf may be taken. */
	useShelf = $state(false);
	/** The criterion that counts most; '' for the usual order. */
	first = $state('');
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
				this.#session().view.at,
				this.#question(),
				{
					signal: abort.signal,
					tell: (p) => abort.signal.aborted || (this.progress = p)
				}
			);
			if (abort.signal.aborted) return;
			if (got.best) await this.take(got.best);
			// The drawing first, the words after: one picture of both. What was taken from
			// the shelf has been asked about again by now.
			if (!abort.signal.aborted) this.advice = got;
		} catch (e) {
			if (e instanceof DOMException) return;
			this.fault = refusal(e).says;
		} finally {
			if (!abort.signal.aborted) this.busy = false;
			if (this.#abort === abort) this.progress = null;
		}
	}

	/** Stops the question that is asked; what was found before stays. */
	stop() {
		this.#abort?.abort();
		this.busy = false;
	}

	/** Whether the job's plan is this one. */
	isNow = (way: Way) => !way.moves.some((m) => changes(this.#session().job, m));

	/** Makes a way the job's plan. */
	async take(way: Way): Promise<void> {
		if (way.takes.length > 0) return this.#fetchAndTake(way);
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
	ban(item: string, socket: string): Promise<void> {
		this.pins = this.pins.filter((p) => p.item !== item || p.socket !== socket);
		this.bans = [...this.bans, { item, socket }];
		return this.find();
	}
	unban(ban: Placement): Promise<void> {
		this.bans = this.bans.filter((b) => b !== ban);
		return this.find();
	}
	/** One way out of a clash: something is given up, or taken from the shelf. */
	async giveUp(help: Help): Promise<void> {
		const { do: what, item = '', also = [], socket = '', part = '' } = help;
		switch (what) {
			case 'unpin':
				return this.unpin(item);
			case 'allow':
				this.bans = this.bans.filter((b) => b.item !== item || b.socket !== socket);
				return this.find();
			case 'give up port':
				return this.keepPort(socket, false);
			case 'let move':
				return this.allow(item, '');
			case 'leave out': {
				const session = this.#session();
				if (!session.item(item)?.new) return this.allow(item, 'leave');
				if (await session.change({ do: 'remove', items: [item, ...also] })) await this.find();
				return;
			}
			case 'take':
				if (await this.fetchParts([part])) await this.find();
		}
	}
	/** Back to planning by hand. */
	leave() {
		this.stop();
		this.advice = null;
		this.pins = [];
		this.bans = [];
		this.roles = {};
		this.ports = [];
		this.useShelf = false;
		this.first = '';
	}
	allow(item: string, role: Role | ''): Promise<void> {
		this.roles = Object.fromEntries(
			Object.entries({ ...this.roles, [item]: role }).filter(([, r]) => r)
		) as Record<string, Role>;
		return this.find();
	}

	keepPort(socket: string, keep: boolean): Promise<void> {
		this.ports = this.ports.filter((p) => p !== socket).concat(keep ? socket : []);
		return this.find();
	}

	#question(): PlanQuestion {
		const having = (role: Role) =>
			Object.keys(this.roles).filter((item) => this.roles[item] === role);
		return {
			pins: [...this.pins],
			bans: [...this.bans],
			stay: having('stay'),
			leave: having('leave'),
			ports: [...this.ports],
			useShelf: this.useShelf,
			...(this.first && { order: [this.first] })
		} as PlanQuestion;
	}

	async whyNot(item: string, socket: string): Promise<string> {
		const pins = this.pins.filter((p) => p.item !== item) as PlanQuestion['pins'];
		const question = { ...this.#question(), pins };
		return (
			await api.whyNot(this.#session().job.id, this.#session().view.at, { question, item, socket })
		).says;
	}

	async #parts(ids: readonly string[]): Promise<Part[]> {
		const stock = await api.parts(fetch);
		return ids.flatMap((id) => stock.find((p) => p.id === id) ?? []);
	}

	/** Parts of the shelf become pieces to fit, all in one change. */
	async fetchParts(ids: readonly string[]): Promise<boolean> {
		const parts = await this.#parts(ids);
		return this.#session().change({ do: 'add', parts, new: true } as Change);
	}

	/** What a way takes from the shelf becomes pieces of the job, each in its place. */
	async #fetchAndTake(way: Way): Promise<void> {
		const parts = await this.#parts(way.takes);
		const change = { do: 'moves', parts, moves: way.moves } as Change;
		if (!(await this.#session().change(change))) return;
		await this.find(); // they are of the job now: the answer names them so
	}
}
