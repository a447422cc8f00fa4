import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import type { Plugin } from 'vite';
import { defineConfig } from 'vitest/config';

/** A route without a row in the table of doors does not build. */
const everyRouteHasADoor: Plugin = {
	name: 'every-route-has-a-door',
	buildStart() {
		const doors = readFileSync('src/lib/server/doors.ts', 'utf8');
		const routes = readdirSync('src/routes', { recursive: true, encoding: 'utf8' })
			.filter((file) => /\+(page\.svelte|server\.ts)$/.test(file))
			.map((file) => `/${path.dirname(file)}`.replace('/.', '/'));
		const open = routes.find((route) => !doors.includes(`\t'${route}': {`));
		if (open) this.error(`The route ${open} has no row in src/lib/server/doors.ts.`);
	}
};

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
