// Dates and times as the bench reads them.
const day = new Intl.DateTimeFormat('en-GB', {
	day: 'numeric',
	month: 'short',
	year: 'numeric',
	hour: '2-digit',
	minute: '2-digit'
});

export const when = (iso: string | undefined) => (iso ? day.format(new Date(iso)) : '');
