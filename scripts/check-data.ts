import { existsSync } from 'node:fs';
import path from 'node:path';
import { checkData } from '../src/lib/server/check';
import { openDb } from '../src/lib/server/db';
import { rootFaults } from '../src/lib/server/roots';

/** npm run check-data: exit 0 sound, 1 not, and says what. */
const folder = process.env['PELLUM_DATA'] ?? 'data/demo';
if (!existsSync(path.join(folder, 'pellum.db'))) {
	console.error(`There is no database in ${folder}.`);
	process.exit(1);
}
const db = openDb(folder);
const sound = checkData(db);
if (sound.faults.length === 0) sound.faults.push(...rootFaults(db, folder));
db.close();
console.log(`${folder}: ${sound.packets} packets, ${sound.events} events, ${sound.blobs} files`);
for (const fault of sound.faults) console.log(`  ${fault}`);
console.log(
	sound.faults.length === 0
		? 'Sound.'
		: `Not sound: ${sound.faults.length} ${sound.faults.length === 1 ? 'fault' : 'faults'}.`
);
process.exit(sound.faults.length === 0 ? 0 : 1);
