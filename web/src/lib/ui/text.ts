// Dates and times as the bench reads them.
const minute = new Intl.DateTimeFormat('en-GB', {
	day: 'numeric',
	month: 'short',
	year: 'numeric',
	hour: '2-digit',
	minute: '2-digit'
});

export const when = (iso: string | undefined) => (iso ? minute.format(new Date(iso)) : '');

/** A day of the calendar: "30 Nov 2026". */
export const day = (date: string) =>
	new Date(date + 'T12:00').toLocaleDateString('en-GB', {
		day: 'numeric',
		month: 'short',
		year: 'numeric'
	});
