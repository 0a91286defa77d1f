// Rules as sentences made of pick lists: "when M2_2 holds anything, then SATA5 is
// off". Each half is a subject and what is said of it, both written as short codes.
import type { Condition, Effect, Sheet } from '$lib/api/types.gen';

export interface Word {
	readonly value: string;
	readonly name: string;
}

/** Subjects of a condition: sockets, settings, the processor. */
export const subjects = (s: Sheet): Word[] => [
	...s.sockets.map((k) => ({ value: 'socket:' + k.id, name: k.id })),
	...s.settings.map((t) => ({ value: 'setting:' + t.id, name: t.name })),
	...(s.processors?.length ? [{ value: 'processor:', name: 'the processor' }] : [])
];

export const subjectOf = (c: Condition): string =>
	c.processor === undefined && c.setting === undefined && c.socket === undefined
		? ''
		: c.processor !== undefined
			? 'processor:'
			: c.setting !== undefined
				? 'setting:' + c.setting
				: 'socket:' + (c.socket ?? '');

/** What can be said of a subject. */
export function predicates(s: Sheet, subject: string): Word[] {
	if (subject === '') return [];
	const [kind, id] = cut(subject);
	if (kind === 'processor')
		return (s.processors ?? []).map((p) => ({ value: p.id, name: 'is ' + p.name }));
	if (kind === 'setting')
		return (s.settings.find((t) => t.id === id)?.options ?? []).map((o) => ({
			value: o.value,
			name: 'is ' + o.name
		}));
	return [
		{ value: 'anything', name: 'holds anything' },
		{ value: 'pcie', name: 'holds a PCIe part' },
		{ value: 'sata', name: 'holds a SATA part' }
	];
}

export const predicateOf = (c: Condition): string => c.processor ?? c.is ?? c.holds ?? '';

export function condition(subject: string, predicate: string): Condition {
	const [kind, id] = cut(subject);
	if (kind === 'processor') return { processor: predicate };
	if (kind === 'setting') return { setting: id, ...(predicate && { is: predicate }) };
	return { socket: id, ...(predicate && { holds: predicate as NonNullable<Condition['holds']> }) };
}

/** The object of an effect on memory, for which the file has no name. */
const MEMORY = '*memory';

/** Objects of an effect: sockets, and memory where it has slots. */
export const objects = (s: Sheet): Word[] => [
	...s.sockets
		.filter((k) => k.kind !== 'dimm' && k.kind !== 'sodimm')
		.map((k) => ({ value: k.id, name: k.id })),
	{ value: MEMORY, name: 'memory' }
];

/** What an effect can do to an object. */
export function effects(s: Sheet, object: string): Word[] {
	if (object === '') return [];
	if (object === MEMORY) return [{ value: 'profile', name: 'runs at its profile' }];
	const k = s.sockets.find((x) => x.id === object);
	const out: Word[] = [{ value: 'off', name: 'is off' }];
	if (k?.kind === 'm2' || k?.kind === 'pcie' || k?.kind === 'u2') {
		for (const n of [8, 4, 2, 1])
			if (n < (k.lanes ?? 16)) out.push({ value: 'lanes:' + n, name: 'is at most x' + n });
		for (const g of [5, 4, 3, 2, 1])
			if (g < (k.gen ?? 6)) out.push({ value: 'gen:' + g, name: 'is at most Gen ' + g });
	}
	if (k?.kind === 'm2' || k?.kind === 'u2')
		out.push(
			{ value: 'only:pcie', name: 'takes PCIe only' },
			{ value: 'only:sata', name: 'takes SATA only' }
		);
	for (const x of k?.splits ?? [])
		out.push({ value: 'split:' + x.join('+'), name: 'is split ' + x.join('+') });
	return out;
}

export const objectOf = (e: Effect): string => (e.memoryProfile ? MEMORY : (e.socket ?? ''));

/** An effect as its code; one that does several things at once has several. */
export const effectsOf = (e: Effect): string[] => [
	...(e.off ? ['off'] : []),
	...(e.maxLanes ? ['lanes:' + e.maxLanes] : []),
	...(e.maxGen ? ['gen:' + e.maxGen] : []),
	...(e.protocols?.length === 1 ? ['only:' + e.protocols[0]] : []),
	...(e.split ? ['split:' + e.split.join('+')] : []),
	...(e.memoryProfile ? ['profile'] : [])
];

export function effect(object: string, code: string): Effect {
	const [what, value] = cut(code);
	const socket = object;
	switch (what) {
		case '':
			return { socket };
		case 'lanes':
			return { socket, maxLanes: Number(value) as NonNullable<Effect['maxLanes']> };
		case 'gen':
			return { socket, maxGen: Number(value) };
		case 'only':
			return { socket, protocols: [value as 'pcie' | 'sata'] };
		case 'split':
			return { socket, split: value.split('+').map(Number) };
		case 'profile':
			return { memoryProfile: true };
	}
	return { socket, off: true };
}

/** Rules with one thing to each effect, as the sentences show them. */
export function apart(s: Sheet): Sheet {
	return {
		...s,
		rules: s.rules.map((r) => ({
			...r,
			then: r.then.flatMap((e) => {
				const codes = effectsOf(e);
				return codes.length > 1 ? codes.map((c) => effect(objectOf(e), c)) : [e];
			}) as typeof r.then
		}))
	};
}

function cut(code: string): [string, string] {
	const i = code.indexOf(':');
	return i < 0 ? [code, ''] : [code.slice(0, i), code.slice(i + 1)];
}
