// Steps said aloud, where the browser can, and only when somebody switched it on.
const SLOT = 'deepbay.spoken';

class Speech {
	readonly can = typeof speechSynthesis !== 'undefined';
	on = $state(false);

	constructor() {
		try {
			this.on = this.can && localStorage.getItem(SLOT) === 'on';
		} catch {
			// no storage: off
		}
	}
	switch(on: boolean) {
		this.on = on;
		localStorage.setItem(SLOT, on ? 'on' : 'off');
		if (!on) speechSynthesis.cancel();
	}
	say(lines: readonly string[]) {
		if (!this.on) return;
		speechSynthesis.cancel();
		for (const l of lines) speechSynthesis.speak(new SpeechSynthesisUtterance(l));
	}
}
export const speech = new Speech();
