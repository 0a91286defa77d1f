import type { ShortForm } from '$lib/api/types.gen';

type Kind = ShortForm['kind'];

/** The kinds of part that have a short form, as people call them. */
export const KINDS: readonly { value: Kind; name: string }[] = [
	{ value: 'drive', name: 'Drive, also an optical one' },
	{ value: 'module', name: 'Memory module' },
	{ value: 'card', name: 'Card: graphics, network, wireless, capture' },
	{ value: 'carrier', name: 'Carrier, controller or adapter' },
	{ value: 'box', name: 'Box for a USB port' },
	{ value: 'lead', name: 'Data lead' },
	{ value: 'power adapter', name: 'Power adapter or splitter' },
	{ value: 'supply lead', name: 'Lead of a modular supply' },
	{ value: 'holder', name: 'Bracket, caddy, spacer or screws' }
];
