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
						{ name: 'frame', test: /node_modules/, minShareCount: 3 },
						{ name: 'house', test: /src\/lib\/(ui|api)\/(?!KeysDialog|Palette|ScanCode)/ },
						{
							name: 'job',
							test: /src\/lib\/(job|chart)\/(?!screens|outbox|Add|Edit|Shop|HandPage|Closing|Owner|Board|layout|StepRow|TestState|LineRow|Locator|Written|Wish|wish|After|Plan|Thumb|WhyNot|Searching)/
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
