import adapter from '@sveltejs/adapter-node';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';

/** @type {import('@sveltejs/kit').Config} */
export default {
	preprocess: vitePreprocess(),
	kit: {
		// the compiler looks at all of it, not only at what ships
		typescript: {
			config: (config) => ({
				...config,
				include: [...config.include, ...['bench', 'demo', 'e2e', 'scripts'].map((room) => `../${room}/**/*.ts`)]
			})
		},
		adapter: adapter({ envPrefix: '' }),
		version: { pollInterval: 0 },
		csp: {
			mode: 'auto',
			directives: {
				'default-src': ['self'],
				'script-src': ['self', 'wasm-unsafe-eval'],
				'style-src': ['self'],
				// pdf.js and drawn fields place things by style attributes
				'style-src-attr': ['unsafe-inline'],
				'img-src': ['self', 'data:', 'blob:'],
				'font-src': ['self', 'data:', 'blob:'],
				'connect-src': ['self'],
				'worker-src': ['self', 'blob:'],
				'object-src': ['none'],
				'base-uri': ['none'],
				'form-action': ['self'],
				'frame-ancestors': ['none']
			}
		}
	}
};
