// Whose hands are at this bench: kept in the browser, written beside every change.
class Who {
	name = $state(localStorage.getItem('deepbay.who') ?? '');
	set(name: string) {
		this.name = name.trim().slice(0, 80);
		localStorage.setItem('deepbay.who', this.name);
	}
}
export const who = new Who();
