import type { ShortForm } from '$lib/api/types.gen';

type Kind = ShortForm['kind'];

/** The kinds of part that have a short form, as people call them. */
export const KINDS: readonly { value: Kind; name: string; short: string }[] = [
	{ value: 'drive', short: 'Drives', name: 'Drive, also an optical one' },
	{ value: 'module', short: 'Memory', name: 'Memory module' },
	{ value: 'card', short: 'Cards', name: 'Card: graphics, network, wireless, capture' },
	{ value: 'carrier', short: 'Carriers', name: 'Carrier, controller or adapter' },
	{ value: 'box', short: 'Boxes', name: 'Box for a USB port' },
	{ value: 'lead', short: 'Leads', name: 'Data lead' },
	{ value: 'power adapter', short: 'Power', name: 'Power adapter or splitter' },
	{ value: 'supply lead', short: 'Supply leads', name: 'Lead of a modular supply' },
	{ value: 'holder', short: 'Holders', name: 'Bracket, caddy, spacer or screws' }
];
