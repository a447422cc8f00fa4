import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';
import { compiledTexts } from './scripts/compiled-texts';
import { everyRouteHasADoor } from './scripts/every-route';

export default defineConfig({
	plugins: [compiledTexts, tailwindcss(), sveltekit(), everyRouteHasADoor],
	server: { host: '127.0.0.1', port: 5180 },
	build: { chunkSizeWarningLimit: 1500 },
	test: {
		include: ['src/**/*.test.ts', 'demo/**/*.test.ts', 'scripts/**/*.test.ts'],
		environment: 'node',
		testTimeout: 30_000,
		pool: 'forks',
		// all of the machine: it would leave one processor idle, which is half of a small one
		maxWorkers: '100%'
	}
});
