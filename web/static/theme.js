// Before the first paint: the night colours, if they were chosen or the system has them.
(() => {
	let kept = null;
	try {
		kept = localStorage.getItem('deepbay.theme');
	} catch {
		/* storage switched off: follow the system */
	}
	const night = kept ? kept === 'night' : matchMedia('(prefers-color-scheme: dark)').matches;
	document.documentElement.classList.toggle('dark', night);
})();
