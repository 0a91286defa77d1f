// What is picked up, by tap, key or drag, and what each socket would come to.
import type { Attachment } from 'svelte/attachments';
import { on } from 'svelte/events';
import { api } from '$lib/api/client';
import { refusal } from '$lib/api/refused';
import type { Offer } from '$lib/api/types.gen';
import type { Session, State } from './session.svelte';

const DRAG_FROM = 8; // px the pointer moves before a press is a drag
const REST = 250; // ms a finger rests before it lifts a part

export class Hand {
	item = $state<string>();
	offers = $state.raw<readonly Offer[]>([]);
	ghost = $state.raw<{ x: number; y: number } | null>(null);
	#session: () => Session;
	#state: () => State;
	#abort: AbortController | null = null;
	#dragged = false;

	#pin: (item: string, socket: string) => Promise<void> | undefined;

	/** @param pin takes a placement over while the planner is at work, else undefined */
	constructor(
		session: () => Session,
		state: () => State,
		pin: (item: string, socket: string) => Promise<void> | undefined
	) {
		this.#session = session;
		this.#state = state;
		this.#pin = pin;
	}

	async pickUp(item: string) {
		this.putDown();
		this.item = item;
		const abort = (this.#abort = new AbortController());
		try {
			const list = await api.offers(
				this.#session().job.id,
				this.#session().view.at,
				item,
				this.#state(),
				abort.signal
			);
			if (!abort.signal.aborted) this.offers = list;
		} catch (e) {
			// Without offers one can still place; the answer comes after.
			if (!abort.signal.aborted) refusal(e);
		}
	}

	putDown() {
		this.#abort?.abort();
		this.item = undefined;
		this.offers = [];
		this.ghost = null;
	}

	place(socket: string): Promise<boolean> {
		const item = this.item;
		this.putDown();
		if (!item) return Promise.resolve(false);
		const pinned = this.#pin(item, socket);
		if (pinned) return pinned.then(() => true);
		return this.#session().change({ do: 'place', in: this.#state(), item, socket });
	}

	takeOut(item: string): Promise<boolean> {
		this.putDown();
		return this.#session().change({ do: 'take out', in: this.#state(), item });
	}

	/** True once after a drag, so that the click that ends it does nothing more. */
	swallowClick(): boolean {
		const was = this.#dragged;
		this.#dragged = false;
		return was;
	}

	draggable =
		(item: string | undefined): Attachment<HTMLElement> =>
		(el) => {
			if (!item) return;
			el.style.touchAction = 'pan-y'; // a list can still be scrolled; sideways is a drag
			let start: { x: number; y: number; id: number } | null = null;
			let resting: ReturnType<typeof setTimeout> | undefined;
			const lift = (x: number, y: number) => {
				if (!this.ghost) void this.pickUp(item);
				this.ghost = { x, y };
			};
			const off = [
				on(el, 'pointerdown', (e) => {
					if (e.button !== 0) return;
					start = { x: e.clientX, y: e.clientY, id: e.pointerId };
					// A finger that rests lifts the part, and then goes anywhere.
					if (e.pointerType === 'touch')
						resting = setTimeout(() => start && lift(start.x, start.y), REST);
				}),
				on(el, 'touchmove', (e) => this.ghost && e.preventDefault(), { passive: false }),
				on(el, 'contextmenu', (e) => this.ghost && e.preventDefault()),
				on(window, 'pointerdown', (e) => {
					if (!start || e.pointerId === start.id) return;
					clearTimeout(resting); // two fingers zoom
					start = null;
					this.putDown();
				}),
				on(window, 'pointermove', (e) => {
					if (!start || e.pointerId !== start.id) return;
					if (!this.ghost && Math.hypot(e.clientX - start.x, e.clientY - start.y) < DRAG_FROM)
						return;
					clearTimeout(resting);
					lift(e.clientX, e.clientY);
				}),
				on(window, 'pointerup', (e) => {
					if (!start || e.pointerId !== start.id) return;
					clearTimeout(resting);
					start = null;
					if (!this.ghost) return;
					this.#dragged = true;
					setTimeout(() => (this.#dragged = false)); // the click comes before this
					const under = document.elementFromPoint(e.clientX, e.clientY);
					const socket = under?.closest('[data-socket]')?.getAttribute('data-socket');
					if (socket) void this.place(socket);
					else if (under?.closest('[data-mat]') && this.#placed(item)) void this.takeOut(item);
					else this.putDown();
				}),
				on(window, 'pointercancel', () => {
					clearTimeout(resting);
					if (start) this.putDown();
					start = null;
				})
			];
			return () => off.forEach((f) => f());
		};

	#placed(item: string) {
		return this.#session().job[this.#state()].placements.some((p) => p.item === item);
	}
}
