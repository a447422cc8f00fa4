import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';
import { everyRouteHasADoor } from './scripts/every-route';

export default defineConfig({
	plugins: [tailwindcss(), sveltekit(), everyRouteHasADoor],
	server: { host: '127.0.0.1', port: 5180 },
	build: { chunkSizeWarningLimit: 1500 },
	test: {
		include: ['src/**/*.test.ts', 'demo/**/*.test.ts'],
		environment: 'node',
		testTimeout: 30_000,
		pool: 'forks',
		// all of the machine: it would leave one processor idle, which is half of a small one
		maxWorkers: '100%'
	}
});
