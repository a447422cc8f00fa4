import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import type { Plugin } from 'vite';
import { doorName } from '../src/lib/server/door-name';

/** The first route of a folder that has no row in the text of a table of doors. */
export function routeWithoutDoor(folder: string, doors: string): string | undefined {
	return readdirSync(folder, { recursive: true, encoding: 'utf8' })
		.filter((file) => /\+(page\.svelte|server\.ts)$/.test(file))
		.map((file) => doorName(`/${path.dirname(file)}`.replace('/.', '/')))
		.find((route) => !doors.includes(`\t'${route}': {`));
}

/** A route without a row in the table of doors does not build. */
export const everyRouteHasADoor: Plugin = {
	name: 'every-route-has-a-door',
	buildStart() {
		const open = routeWithoutDoor('src/routes', readFileSync('src/lib/server/doors.ts', 'utf8'));
		if (open) this.error(`The route ${open} has no row in src/lib/server/doors.ts.`);
	}
};
