import { existsSync } from 'node:fs';
import path from 'node:path';
import { openDb } from '../src/lib/server/db';
import { exportAll } from '../src/lib/server/export';

/** npm run export -- DIR: every finished packet in a folder named by its reference, and the certificates to trust. */
const target = process.argv[2];
const folder = process.env['PELLUM_DATA'] ?? 'data/demo';
if (!target) {
	console.error('Name the folder to write to: npm run export -- DIR');
	process.exit(2);
}
if (!existsSync(path.join(folder, 'pellum.db'))) {
	console.error(`There is no database in ${folder}.`);
	process.exit(1);
}
const db = openDb(folder);
const { packets, files } = exportAll(db, target);
db.close();
console.log(`${packets} packets, ${files} files written to ${path.resolve(target)}.`);
