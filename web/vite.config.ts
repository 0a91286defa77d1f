import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vite';

export default defineConfig({
	plugins: [tailwindcss(), sveltekit()],
	server: {
		port: 5173,
		strictPort: true,
		proxy: { '/api': { target: process.env.API_ORIGIN ?? 'http://127.0.0.1:8480' } }
	},
	build: {
		// flowbite-svelte does not declare itself free of side effects; without this one button drags in every theme
		rolldownOptions: {
			checks: { pluginTimings: false },
			// A few files instead of forty: what every view needs, and what every job's screen does.
			output: {
				codeSplitting: {
					groups: [
						{
							name: 'frame',
							test: /node_modules\/(?!d3-|internmap|flowbite-svelte\/dist\/(forms|modal|dialog|table)\/)|vite.preload-helper|rolldown.runtime/,
							minShareCount: 3,
							priority: 2
						},
						{
							name: 'forms',
							test: /flowbite-svelte\/dist\/(forms|modal|dialog|table)\/|lib\/ui\/(Dialog|Table|TabBar|FileButton|bring)/,
							minShareCount: 3,
							priority: 1
						},
						{
							name: 'house',
							test: /src\/lib\/((ui|api)\/(?!Dialog|Table|TabBar|FileButton|bring|KeysDialog|Palette|ScanCode|Who\.))/
						},
						{
							name: 'chart',
							test: /src\/lib\/chart\/(?!Sketch|Listed|Thumb|Overview|Locator|Board|layout)/
						},
						{
							name: 'job',
							test: /src\/lib\/job\/(?!screens|outbox|SocketPanel|Changed|AsItCame|MemoryChoices|Stages|Offers|Room|Settings|Looked|LookUp|missing|Add|Edit|Shop|HandPage|OwnerPage|Papers|Closing|Owner|MakeArray|Volumes|Moving|Ends|Wipe|StepRow|TestState|LineRow|Written|Wish|wish|After|Plan|WhyNot|Searching|Conflict|OfAnother)/
						}
					]
				}
			},
			treeshake: {
				moduleSideEffects: [{ test: /flowbite-svelte\/dist\/.*\.(js|svelte)$/, sideEffects: false }]
			}
		}
	}
});
