// Day or night. The start is made by static/theme.js before the first paint.
class Theme {
	night = $state(document.documentElement.classList.contains('dark'));
	toggle() {
		this.night = !this.night;
		document.documentElement.classList.toggle('dark', this.night);
		localStorage.setItem('deepbay.theme', this.night ? 'night' : 'day');
	}
}
export const theme = new Theme();
