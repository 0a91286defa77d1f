// What fasteners can be, as the format has it.
import type { Fastener, Layer } from '$lib/api/types.gen';

export const BITS = [
	'by hand',
	'PH00',
	'PH0',
	'PH1',
	'PH2',
	'T5',
	'T6',
	'T8',
	'T10',
	'T15',
	'T20',
	'flat 3 mm',
	'flat 5.5 mm',
	'hex 2 mm',
	'hex nut 5 mm'
] as const satisfies readonly Fastener['bit'][];
export const THREADS = [
	'M1.6',
	'M2',
	'M2.5',
	'M3',
	'M3.5',
	'M4',
	'6-32',
	'self-tapping',
	'push rivet'
] as const satisfies readonly Fastener['thread'][];
export const KINDS = [
	'cover',
	'bezel',
	'shell',
	'cage',
	'bracket',
	'shroud',
	'fan duct',
	'card',
	'shield',
	'cooler',
	'heatsink',
	'board',
	'supply',
	'drive',
	'foot'
] as const satisfies readonly Layer['kind'][];
