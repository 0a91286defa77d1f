/** What is said of a bay: by its entry in the list, or by the port that has it for itself. */
export const OF_BAY = [
	'drives',
	'bayHeightMM',
	'power',
	'leadEnd',
	'holder',
	'holderThere',
	'thread'
] as const;
