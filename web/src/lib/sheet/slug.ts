/** The short name of a sheet that follows from its name: "Harrier T4" is harrier-t4. */
export const slug = (name: string): string =>
	name
		.toLowerCase()
		.replace(/[^a-z0-9]+/g, '-')
		.replace(/^-+|-+$/g, '')
		.slice(0, 60);
