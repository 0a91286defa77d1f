// How long hands are at a step: it stands while somebody is called away, and while the page is
// not looked at.
import { on } from 'svelte/events';

export class Timer {
	/** Seconds so far. */
	seconds = $state(0);
	paused = $state(false);
	#clock: ReturnType<typeof setInterval> | undefined;

	start(): () => void {
		this.#clock = setInterval(() => {
			if (!this.paused && document.visibilityState === 'visible') this.seconds++;
		}, 1000);
		const off = on(document, 'visibilitychange', () => {
			if (document.visibilityState === 'hidden') this.paused = true; // they went away
		});
		return () => {
			clearInterval(this.#clock);
			off();
		};
	}
	reset() {
		this.seconds = 0;
		this.paused = false;
	}
	get written() {
		const s = this.seconds;
		return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`;
	}
}
