// Dates and times as the bench reads them: "30 Nov 2026". By hand, because the first
// Intl.DateTimeFormat of a page costs the browser fifty milliseconds.
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const two = (n: number) => String(n).padStart(2, '0');
const dated = (d: Date) => `${d.getDate()} ${MONTHS[d.getMonth()]} ${d.getFullYear()}`;

/** A moment, in the time of this browser: "30 Nov 2026, 09:05". */
export function when(moment: string | number | undefined) {
	if (!moment) return '';
	const d = new Date(moment);
	return `${dated(d)}, ${two(d.getHours())}:${two(d.getMinutes())}`;
}

/** A day of the calendar: "30 Nov 2026". */
export const day = (date: string) => dated(new Date(date + 'T12:00'));
