import { fold } from '../../core/packet';
import { inTransaction, isBusy, isFull } from '../db';
import type { House } from '../house';
import { queueAgain } from '../jobs/outbox';
import { logOf } from '../log';
import { ownerBy, planLookup } from '../packets/act';
import { eventsOf } from '../packets/log';
import { count, toCount } from './counts';
import { foretell, forgetForecast } from './forecasting';
import { officeDays } from './office-days';
import { settleLast } from './stumbles';

const log = logOf('pace');

/** So many at a time in one transaction; others are answered between two. */
const AT_A_TIME = 10;
/** A forecast is good for so long, in ms: then more has been waited. */
const GOOD = 12 * 3_600_000;

/** Asks for the job, where there is something to do: events to count, forecasts that are too old. */
export function wantPace(house: House): void {
	if (next(house, 1).length > 0) queueAgain(house, 'pace', 'pace');
}

/** Counts what has happened, and forecasts what is out, packet by packet, until nothing is left. */
export async function workPace(house: House, done: () => void): Promise<null> {
	for (;;) {
		if (!house.db.open) return null;
		const packets = next(house, AT_A_TIME);
		if (packets.length === 0) break;
		inTransaction(house.db, () => packets.forEach((packet) => bringUp(house, packet)));
		await new Promise((go) => setImmediate(go));
	}
	done();
	return null;
}

function next({ db, now }: House, most: number): string[] {
	const behind = db.prepare<[number], string>('SELECT packet FROM pace_behind LIMIT ?').pluck().all(most);
	if (behind.length > 0) return behind;
	return db
		.prepare<[string, number], string>('SELECT packet FROM forecasts WHERE as_of < ? ORDER BY as_of LIMIT ?')
		.pluck()
		.all(new Date(now().getTime() - GOOD).toISOString(), most);
}

function bringUp(house: House, packet: string): void {
	const { db } = house;
	db.prepare('DELETE FROM pace_behind WHERE packet = ?').run(packet);
	const whole = db.transaction(() => {
		const events = eventsOf(db, packet);
		const state = fold(events, planLookup(db));
		if (state.status === 'none') return uncount(house, packet);
		count(db, packet, toCount(state, events, officeDays(house)));
		settleLast(db, state);
		foretell(house, state, events, ownerBy(events[0]!));
	});
	try {
		whole();
	} catch (error) {
		if (isFull(error) || isBusy(error)) throw error;
		// one that can't be read keeps no other from being counted; check-data says what is wrong with it
		log.error(error, `packet ${packet} can’t be counted`);
		forgetForecast(db, packet);
	}
}

/** Takes off all that a packet counts towards. Runs in the caller's transaction. */
export function uncount({ db }: House, packet: string): void {
	db.prepare('DELETE FROM pace_behind WHERE packet = ?').run(packet);
	count(db, packet, []);
	db.prepare('DELETE FROM field_last WHERE packet = ?').run(packet);
	forgetForecast(db, packet);
}
