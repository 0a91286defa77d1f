// The work on one plan: which state is drawn, what is chosen, held and open on the screen. The
// components of the Fit screen share it.
import { createContext } from 'svelte';
import type { Change, Changed } from '$lib/api/types.gen';
import { Hand } from './hand.svelte';
import { Planner } from './planner.svelte';
import type { Session, State } from './session.svelte';

/** The panels beside the chart; one is open at a time. */
export type PanelId = 'findings' | 'plan' | 'memory' | 'after' | 'settings' | 'room' | 'looked';

/** The dialogs over it; one is open at a time. */
export type DialogId = 'add' | 'shop' | 'wish' | 'stage';

export class Desk {
	shown = $state<State>('planned');
	chosen = $state<string>();
	panel = $state<PanelId>();
	dialog = $state<DialogId>();
	correcting = $state<string>();
	readonly hand: Hand;
	readonly planner: Planner;
	#session: () => Session;

	constructor(session: () => Session) {
		this.#session = session;
		this.planner = new Planner(session);
		this.hand = new Hand(
			session,
			() => this.shown,
			(item, socket) =>
				this.shown === 'planned' && this.planner.advice ? this.planner.pin(item, socket) : undefined
		);
	}

	get session() {
		return this.#session();
	}
	get resolved() {
		return this.session.view[this.shown];
	}
	name = (item: string | undefined) => this.session.partOf(item)?.name;

	/** The socket that is chosen, with what it is and what it does. */
	get here() {
		const id = this.chosen;
		const state = id ? this.session.socket(this.shown, id) : undefined;
		const socket = [...this.session.job.sheet.sockets, ...this.resolved.carried].find(
			(k) => k.id === id
		);
		return state && socket ? { state, socket } : undefined;
	}

	/** Opens a panel, or closes it. */
	open(id: PanelId, yes: boolean) {
		if (yes) this.panel = id;
		else if (this.panel === id) this.panel = undefined;
	}

	/** Asks for the best plan, and shows it. */
	plan() {
		if (this.session.closed || this.shown === 'found') return;
		this.panel = 'plan';
		void this.planner.find();
	}

	/** Opens a dialog, or closes it. */
	ask(id: DialogId, yes: boolean) {
		if (yes) this.dialog = id;
		else if (this.dialog === id) this.dialog = undefined;
	}

	show(state: State) {
		this.hand.putDown();
		this.shown = state;
	}

	/** A socket was pressed: what is held goes there, or it is chosen. */
	async press(id: string) {
		if (this.hand.swallowClick()) return;
		if (this.hand.item) {
			if (await this.hand.place(id)) this.chosen = id;
			return;
		}
		this.seen();
		this.chosen = this.chosen === id ? undefined : id;
	}

	/** A part on the mat was pressed. */
	toggle(item: string) {
		if (this.hand.swallowClick()) return;
		if (this.hand.item === item) this.hand.putDown();
		else void this.hand.pickUp(item);
	}

	change(c: Change) {
		return this.session.change(c);
	}

	#seen = $state(0);
	/** What the last change made different in what is drawn, until the next action. */
	get changed(): readonly Changed[] {
		const { now } = this.session;
		if (this.hand.item || this.session.view.at > 0 || this.#seen === now.revision) return [];
		return now.changed.filter((c) => c.in === this.shown);
	}
	seen() {
		this.#seen = this.session.now.revision;
	}
}

export const [useDesk, provideDesk] = createContext<Desk>();
