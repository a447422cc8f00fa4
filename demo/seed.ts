import { existsSync } from 'node:fs';
import path from 'node:path';
import { closePool } from '../src/lib/press';
import { openHouse, readConfig } from '../src/lib/server/house';
import { setClock } from '../src/lib/server/clock';
import { makeDemo } from './scenario';

/** Makes the demo database in PELLUM_DATA, by sending commands through the same code as everybody, with the clock moved. */
const config = readConfig({ ...process.env, PELLUM_DEMO: '1' });
if (existsSync(path.join(config.folder, 'pellum.db'))) {
	console.error(`${config.folder} holds a database already.`);
	process.exit(1);
}
const house = openHouse(config);
const made = await makeDemo(house);
setClock(house, 0);
house.db.pragma('wal_checkpoint(TRUNCATE)');
house.db.close();
await closePool();
console.error(`Made ${made.packets} packets and ${made.drafts} drafts.`);
