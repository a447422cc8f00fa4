import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';

/**
 * Finds a file that a package ships. Resolved from the project's root, since the worker is built into a
 * folder of its own and `import.meta.url` would point there.
 */
const require = createRequire(path.join(process.cwd(), 'package.json'));

export function packageFile(name: string): string {
	return require.resolve(name);
}

const read = new Map<string, Buffer>();

/** The file's bytes, read once a process. */
export function packageBytes(name: string): Buffer {
	let bytes = read.get(name);
	if (!bytes) {
		bytes = readFileSync(packageFile(name));
		read.set(name, bytes);
	}
	return bytes;
}
