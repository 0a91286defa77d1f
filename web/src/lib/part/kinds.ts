import type { Part, ShortForm } from '$lib/api/types.gen';

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
	{ value: 'holder', name: 'Bracket, caddy, spacer or screws' }
];

/** The kind whose form a part has; the core says so again when it is asked. */
export function kindOf(p: Part): Kind {
	if (p.module) return 'module';
	if (p.card) return p.card.carrier ? 'carrier' : 'card';
	if (p.enclosure) return 'box';
	if (p.fitting?.kind === 'data lead') return 'lead';
	if (p.fitting?.kind === 'power adapter') return 'power adapter';
	return p.fitting ? 'holder' : 'drive';
}
