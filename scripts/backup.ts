import { existsSync } from 'node:fs';
import path from 'node:path';
import { backUp, keysFile } from '../src/lib/server/backup/copy';

/** npm run backup -- FILE: a whole and checked copy while Pellum runs; the locked keys lie in FILE.keys, to be kept apart. */
const file = process.argv[2];
const folder = process.env['PELLUM_DATA'] ?? 'data/demo';
if (!file) {
	console.error('Name the file to write to: npm run backup -- FILE');
	process.exit(2);
}
if (!existsSync(path.join(folder, 'pellum.db'))) {
	console.error(`There is no database in ${folder}.`);
	process.exit(1);
}
try {
	const { packets, events } = await backUp(folder, path.resolve(file));
	console.log(`${path.resolve(file)}: ${packets} packets, ${events} events, sound. Keys, locked: ${keysFile(file)}`);
} catch (error) {
	console.error(`No backup was made. ${(error as Error).message}`);
	process.exit(1);
}
