import { makeDemo } from '../../demo/scenario';
import { openHouse, readConfig } from '../../src/lib/server/house';
import { setClock } from '../../src/lib/server/clock';

/** The office's accounts and settings, and no packets. */
const house = openHouse(readConfig({ ...process.env, PELLUM_DEMO: '1' }));
await makeDemo(house, []);
setClock(house, 0);
house.db.close();
