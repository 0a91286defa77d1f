import adapter from '@sveltejs/adapter-static';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';

/** @type {import('@sveltejs/kit').Config} */
export default {
	preprocess: vitePreprocess(),
	compilerOptions: { runes: true },
	kit: {
		adapter: adapter({ fallback: 'index.html', precompress: true }),
		// the default is a clock: two builds of one commit would differ
		version: { name: process.env.APP_VERSION ?? 'dev' }
	}
};
