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
		// what hangs ends some day; a machine that is ten times slower isn’t a fault, so no test has a shorter time of its own
		testTimeout: 600_000,
		hookTimeout: 600_000,
		// the tests' passwords are published: judging them may be cheap
		env: { PELLUM_PUBLISHED_PASSWORDS: '1' },
		pool: 'forks',
		// modules are read once a process, not once a file: what a test changes for all, it puts back
		isolate: false,
		// all of the machine: it would leave one processor idle, which is half of a small one
		maxWorkers: '100%'
	}
});
