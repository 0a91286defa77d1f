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
			treeshake: {
				moduleSideEffects: [{ test: /flowbite-svelte\/dist\/.*\.(js|svelte)$/, sideEffects: false }]
			}
		}
	}
});
