// Rules as sentences made of pick lists: "when M2_2 holds anything, then SATA5 is off". What can
// be said is the core's; here its parts are only put together.
import type { Condition, Effect, Sayable, Sheet } from '$lib/api/types.gen';

export interface Word {
	readonly value: string;
	readonly name: string;
}

/** What a condition is about: a socket, a setting, the processor; '' before it is chosen. */
export const subjectOf = (c: Condition): string =>
	c.processor !== undefined
		? 'processor'
		: c.setting !== undefined
			? 'setting ' + c.setting
			: c.socket !== undefined
				? 'socket ' + c.socket
				: '';

const about = (c: Condition): Condition =>
	c.processor !== undefined
		? { processor: '' }
		: c.setting !== undefined
			? { setting: c.setting }
			: { socket: c.socket };

export const subjects = (all: Sayable): Word[] =>
	all.when.map((a) => ({ value: subjectOf(a.can[0]!.when), name: a.about }));
const asks = (all: Sayable, subject: string) =>
	all.when.find((a) => subjectOf(a.can[0]!.when) === subject)?.can ?? [];
/** What can be asked of a subject. */
export const predicates = (all: Sayable, subject: string): Word[] =>
	asks(all, subject).map((c) => ({ value: JSON.stringify(c.when), name: c.says }));

/** The condition that begins with a subject: all of it, where there is one thing to ask. */
export function ask(all: Sayable, subject: string): Condition {
	const can = asks(all, subject);
	return can.length === 1 ? can[0]!.when : can[0] ? about(can[0].when) : {};
}

/** What a condition asks, as a value of a pick list: '' before it asks anything. */
export const asked = (c: Condition): string =>
	JSON.stringify(c) === JSON.stringify(about(c)) ? '' : JSON.stringify(c);

/** The object of an effect on memory, for which the file has no name. */
const MEMORY = '*memory';

export const objectOf = (e: Effect): string => (e.memoryProfile ? MEMORY : (e.socket ?? ''));
export const objects = (all: Sayable): Word[] =>
	all.then.map((d) => ({ value: objectOf(d.can[0]!.then), name: d.on }));
const does = (all: Sayable, object: string) =>
	all.then.find((d) => objectOf(d.can[0]!.then) === object)?.can ?? [];
/** What an effect can do to an object. */
export const effects = (all: Sayable, object: string): Word[] =>
	does(all, object).map((c) => ({ value: JSON.stringify(c.then), name: c.says }));

/** What an effect does, as a value of a pick list: '' before it does anything. */
export const done = (e: Effect): string =>
	Object.keys(e).some((k) => k !== 'socket') ? JSON.stringify(e) : '';

/** The effect on another object: the same one where that can be, or what it can do only. */
export function effectOn(all: Sayable, object: string, was: Effect): Effect {
	const can = does(all, object);
	const same = can.find((c) => what(c.then) === what(was));
	return (same ?? (can.length === 1 ? can[0] : undefined))?.then ?? { socket: object };
}
const what = (e: Effect) => JSON.stringify({ ...e, socket: undefined });

/** Rules with one thing to each effect, as the sentences show them. */
export function apart(s: Sheet): Sheet {
	return {
		...s,
		rules: s.rules.map((r) => ({
			...r,
			then: r.then.flatMap(({ socket, ...does }) => {
				const on = socket === undefined ? {} : { socket };
				const each = Object.entries(does);
				return each.length > 1 ? each.map(([k, v]) => ({ ...on, [k]: v })) : [{ ...on, ...does }];
			}) as typeof r.then
		}))
	};
}
