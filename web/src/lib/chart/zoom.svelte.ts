// Zoom and pan of the chart: by wheel and pinch, by dragging what is empty, by keys. Ctrl and
// wheel is what a pinch on a touch pad sends, and what zooms elsewhere.
import type { Attachment } from 'svelte/attachments';
import { on } from 'svelte/events';
import type { Box } from './drawing';

const MOST = 4;
const STEP = 1.4; // a press of a key

export class Zoom {
	k = $state(1);
	x = $state(0);
	y = $state(0);
	#size: () => { width: number; height: number };

	constructor(size: () => { width: number; height: number }) {
		this.#size = size;
	}

	get zoomed() {
		return this.k > 1;
	}
	/** Which part of the drawing is seen. */
	get seen(): Box {
		const { width, height } = this.#size();
		return { x: -this.x / this.k, y: -this.y / this.k, w: width / this.k, h: height / this.k };
	}

	/** Zooms by a factor around a point of the window, its middle where none is said. */
	by(factor: number, at?: { x: number; y: number }) {
		const { width, height } = this.#size();
		const { x, y } = at ?? { x: width / 2, y: height / 2 };
		const k = Math.min(MOST, Math.max(1, this.k * factor));
		this.#to(k, x - ((x - this.x) * k) / this.k, y - ((y - this.y) * k) / this.k);
	}
	in = () => this.by(STEP);
	out = () => this.by(1 / STEP);
	fit = () => this.#to(1, 0, 0);
	pan(dx: number, dy: number) {
		this.#to(this.k, this.x + dx, this.y + dy);
	}
	/** Puts a point of the drawing into the middle. */
	centre(x: number, y: number) {
		const { width, height } = this.#size();
		this.#to(this.k, width / 2 - x * this.k, height / 2 - y * this.k);
	}
	/** Pans as far as a box of the drawing needs to be seen. */
	show(box: Box) {
		const s = this.seen;
		const over = (from: number, size: number, seen: number, sees: number) =>
			from < seen ? from - seen : Math.max(0, from + size - seen - sees);
		this.pan(-over(box.x, box.w, s.x, s.w) * this.k, -over(box.y, box.h, s.y, s.h) * this.k);
	}

	#to(k: number, x: number, y: number) {
		const { width, height } = this.#size();
		this.k = k;
		this.x = Math.min(0, Math.max(width * (1 - k), x));
		this.y = Math.min(0, Math.max(height * (1 - k), y));
	}

	/** What zooms and pans by hand. */
	window: Attachment<HTMLElement> = (el) => {
		let down: { id: number; x: number; y: number }[] = [];
		const up = (e: PointerEvent) => (down = down.filter((p) => p.id !== e.pointerId));
		const at = (e: PointerEvent | WheelEvent) => {
			const box = el.getBoundingClientRect();
			return { x: e.clientX - box.left, y: e.clientY - box.top };
		};
		const off = [
			on(
				el,
				'wheel',
				(e) => {
					if (e.ctrlKey) this.by(Math.exp(-e.deltaY / 200), at(e));
					else if (this.zoomed) this.pan(-e.deltaX, -e.deltaY);
					else return;
					e.preventDefault();
				},
				{ passive: false }
			),
			on(el, 'pointerdown', (e) => {
				const part = (e.target as Element).closest('button');
				if (e.pointerType === 'touch' || (e.button === 0 && !part))
					down.push({ id: e.pointerId, ...at(e) });
			}),
			on(window, 'pointermove', (e) => {
				const was = down.find((p) => p.id === e.pointerId);
				if (!was) return;
				const now = at(e);
				const other = down.find((p) => p.id !== e.pointerId);
				if (other) {
					const far = (p: { x: number; y: number }) => Math.hypot(p.x - other.x, p.y - other.y);
					this.by(far(now) / Math.max(1, far(was)), {
						x: (now.x + other.x) / 2,
						y: (now.y + other.y) / 2
					});
				} else if (this.zoomed && !(e.target as Element).closest('button')) {
					this.pan(now.x - was.x, now.y - was.y);
				}
				Object.assign(was, now);
			}),
			on(window, 'pointerup', up),
			on(window, 'pointercancel', up)
		];
		return () => off.forEach((f) => f());
	};
}
