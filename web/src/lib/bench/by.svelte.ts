// How the jobs of the bench are grouped; the browser remembers it.
export type How = 'latest' | 'stage' | 'place';

export const WAYS = [
	['latest', 'Latest first'],
	['stage', 'By stage'],
	['place', 'By place']
] as const satisfies readonly (readonly [How, string])[];

const SLOT = 'deepbay.bench';
const kept = localStorage.getItem(SLOT);

class By {
	how = $state<How>(WAYS.find(([how]) => how === kept)?.[0] ?? 'latest');
	set(how: How) {
		this.how = how;
		localStorage.setItem(SLOT, how);
	}
}
export const by = new By();
