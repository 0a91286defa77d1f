// The pick lists of the editor. A value that is undefined is "not stated".
import type { Sheet } from '$lib/api/types.gen';

export interface Choice {
	readonly value: string | number | boolean | readonly unknown[] | undefined;
	readonly name: string;
}

const plain = (...values: (string | number)[]): Choice[] =>
	values.map((v) => ({ value: v, name: String(v) }));
const unstated: Choice = { value: undefined, name: '?' };

export const ANSWER: readonly Choice[] = [
	unstated,
	{ value: true, name: 'yes' },
	{ value: false, name: 'no' }
];
export const ROLE: readonly Choice[] = [
	{ value: undefined, name: 'as its rules tell' },
	{ value: 'storage-mode', name: 'storage mode' },
	{ value: 'remapping', name: 'claims drives' },
	{ value: 'socket-mode', name: 'mode or width of a socket' },
	{ value: 'slot-split', name: 'split of a slot' },
	{ value: 'link-speed', name: 'speed of a link' },
	{ value: 'memory-profile', name: 'memory profile' },
	{ value: 'pcie-start', name: 'start over PCIe' },
	{ value: 'legacy-start', name: 'older way of starting' },
	{ value: 'secure-start', name: 'secure start' },
	{ value: 'boot-order', name: 'boot order' }
];
export const EDGE: readonly Choice[] = [unstated, ...plain('rear', 'front', 'upper', 'lower')];
export const LANES: readonly Choice[] = [
	unstated,
	...[1, 2, 4, 8, 16].map((n) => ({ value: n, name: 'x' + n }))
];
export const LONG: readonly Choice[] = [
	unstated,
	...[1, 4, 8, 16].map((n) => ({ value: n, name: 'x' + n }))
];
export const GEN: readonly Choice[] = [unstated, ...plain(1, 2, 3, 4, 5, 6)];
export const SATA_GEN: readonly Choice[] = [
	unstated,
	{ value: 1, name: '1.5 Gb/s' },
	{ value: 2, name: '3 Gb/s' },
	{ value: 3, name: '6 Gb/s' }
];
export const USB: readonly Choice[] = [
	unstated,
	...plain(
		'2.0',
		'3.2 Gen 1',
		'3.2 Gen 1x2',
		'3.2 Gen 2',
		'3.2 Gen 2x2',
		'USB4 Gen 2x2',
		'USB4 Gen 3x2',
		'USB4 Gen 4x2'
	)
];
export const KEY: readonly Choice[] = [unstated, ...plain('M', 'B', 'E', 'A')];
export const WIDTH: readonly Choice[] = [unstated, ...plain(22, 25, 30)];
export const SPEAKS: readonly Choice[] = [
	unstated,
	{ value: ['pcie'], name: 'PCIe' },
	{ value: ['pcie', 'sata'], name: 'PCIe, SATA' },
	{ value: ['sata'], name: 'SATA' }
];
export const TAKES: readonly Choice[] = [
	unstated,
	{ value: ['2.5in'], name: '2.5' },
	{ value: ['3.5in', '2.5in'], name: '3.5 or 2.5' },
	{ value: ['3.5in'], name: '3.5' },
	{ value: ['slim'], name: 'slim optical' },
	{ value: ['5.25in'], name: '5.25 optical' },
	{ value: ['u2'], name: 'U.2' }
];
export const SPLITS: readonly Choice[] = [
	{ value: undefined, name: 'none' },
	{ value: [[8, 8]], name: '8+8' },
	{ value: [[4, 4]], name: '4+4' },
	{ value: [[4, 4, 4, 4]], name: '4+4+4+4' },
	{
		value: [
			[8, 8],
			[8, 4, 4]
		],
		name: '8+8, 8+4+4'
	},
	{
		value: [
			[8, 8],
			[4, 4, 4, 4]
		],
		name: '8+8, 4+4+4+4'
	},
	{
		value: [
			[8, 8],
			[8, 4, 4],
			[4, 4, 4, 4]
		],
		name: '8+8, 8+4+4, 4+4+4+4'
	}
];
export const LENGTHS: readonly Choice[] = [
	unstated,
	...[
		[30],
		[42],
		[80],
		[30, 42],
		[42, 80],
		[60, 80],
		[42, 60, 80],
		[30, 42, 60, 80],
		[80, 110],
		[60, 80, 110],
		[42, 60, 80, 110]
	].map((l) => ({ value: l, name: l.join(', ') }))
];
export const HOLDER: readonly Choice[] = [unstated, ...plain('screws', 'bracket', 'caddy')];
export const THREAD: readonly Choice[] = [unstated, ...plain('M3', '6-32')];
export const END: readonly Choice[] = [
	{ value: undefined, name: 'any' },
	...plain('straight', 'angled')
];
export const PLUG: readonly Choice[] = [
	{ value: undefined, name: 'sata' },
	...plain('slimline sata', '4-pin peripheral')
];
export const PLUGS: readonly Choice[] = plain(
	'sata',
	'slimline sata',
	'4-pin peripheral',
	'6-pin',
	'8-pin',
	'12V-2x6'
);
export const CLASS: readonly Choice[] = plain(
	'tower',
	'small form factor',
	'mini PC',
	'thin client',
	'workstation',
	'unknown'
);
export const FAMILY: readonly Choice[] = [
	unstated,
	...['ddr2', 'ddr3', 'ddr4', 'ddr5'].map((g) => ({ value: g, name: g.toUpperCase() }))
];
export const MODULE: readonly Choice[] = [
	{ value: 'dimm', name: 'DIMM' },
	{ value: 'sodimm', name: 'SO-DIMM' }
];

export const groups = (s: Sheet): Choice[] => s.groups.map((g) => ({ value: g.id, name: g.id }));
export const roots = (s: Sheet): Choice[] => s.roots.map((r) => ({ value: r.id, name: r.name }));

/** The choice that holds a value; what is in none of them is shown as it is. */
export function withValue(choices: readonly Choice[], value: unknown): readonly Choice[] {
	const same = JSON.stringify(value);
	return choices.some((c) => JSON.stringify(c.value) === same)
		? choices
		: [
				...choices,
				{
					value: value as Choice['value'],
					name: Array.isArray(value) ? value.join(', ') : String(value)
				}
			];
}
