import type { House } from './house';
import { readSetting, writeSetting } from './settings';

/** The Clock stand-in: moves the demo's time forward. Backwards it never goes, since the record may not. */
export function moveClock(house: House, days: number): void {
	const offset = Number(readSetting(house.db, 'clock-offset') ?? 0);
	writeSetting(house.db, 'clock-offset', String(offset + Math.max(0, days) * 86_400_000));
	house.changes.emit('packet', '');
	house.changes.emit('jobs');
}

/** Sets how far the demo's time is from the machine's, in ms. For the script that makes the demo. */
export function setClock(house: House, offset: number): void {
	writeSetting(house.db, 'clock-offset', String(offset));
}
