import { button, type ThemeConfig } from 'flowbite-svelte';

// House defaults: targets of 44 px, edges that reach 3:1, text of 16 px.
export const theme: ThemeConfig = {
	button: { base: 'min-h-11 text-base rounded-md whitespace-nowrap' },
	input: {
		input: 'min-h-11 text-base border-gray-500 dark:border-gray-400 bg-raised dark:bg-raised'
	},
	select: {
		select: 'min-h-11 text-base border-gray-500 dark:border-gray-400 bg-raised dark:bg-raised'
	},
	textarea: {
		wrapper: 'text-base border-gray-500 dark:border-gray-400 bg-raised dark:bg-raised'
	},
	checkbox: { base: 'size-6 border-gray-500 dark:border-gray-400', div: 'min-h-11 text-base' },
	radio: { input: 'size-6 border-gray-500 dark:border-gray-400', label: 'min-h-11 text-base' },
	label: 'text-base',
	accordionItem: {
		button:
			'min-h-12 gap-2 py-1.5 rounded-none! border-line text-base hover:bg-water-1 dark:border-line',
		content: 'border-line py-2 dark:border-line'
	},
	table: { table: 'border-collapse text-base text-ink dark:text-ink' },
	tableHead:
		'text-base normal-case border-b-2 border-ink align-bottom bg-transparent dark:bg-transparent text-ink dark:text-ink',
	tableHeadCell: 'px-0 py-1.5 pr-3 last:pr-0',
	tableBodyRow:
		'border-b border-line align-top bg-transparent dark:bg-transparent dark:border-line',
	tableBodyCell: 'px-0 py-1.5 pr-3 last:pr-0 font-normal whitespace-normal'
};

/** Builds the table of classes in a task of its own, where the first button would have to. */
export const warm = () => void setTimeout(() => button({ class: 'p-1' }));
