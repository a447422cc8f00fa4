import type { HashName } from '../../press';
import type { Db } from '../db';
import type { House } from '../house';
import { queue } from '../jobs/outbox';
import { methods, OVERLAP, stampsOver } from '../keys';

/** Which copies want another time-stamp, and asking for it. */

const AT_A_TIME = 500;

interface Row {
	packet: string;
	until: string;
	method: HashName;
}

/** Asks for a time-stamp over copies that end within two years, or whose method does; a few hundred at a time. @returns how many */
export function askDue(house: House): number {
	foundOut(house.db);
	const rows = dueRows(house);
	for (const { packet, until, method } of rows)
		queue(house, 'keeping', `${packet}:stamp:${until}:${method}`, { do: 'stamp', packet });
	if (rows.length > 0) house.changes.emit('jobs');
	return rows.length;
}

function dueRows({ db, now }: House): Row[] {
	const soon = new Date(now().getTime() + OVERLAP).toISOString();
	const rows = db
		.prepare<[string, number], Row>(
			"SELECT packet, until, method FROM lasting WHERE until > '' AND until < ? ORDER BY until LIMIT ?"
		)
		.all(soon, AT_A_TIME);
	for (const [method, from] of Object.entries(methods(db)))
		if (from < soon)
			rows.push(
				...db
					.prepare<[string, number], Row>('SELECT packet, until, method FROM lasting WHERE method = ? LIMIT ?')
					.all(method, AT_A_TIME)
			);
	return rows.slice(0, AT_A_TIME);
}

/** Of copies from before this was kept: when the clock's certificate ends by which they were sealed. */
function foundOut(db: Db): void {
	const unknown = db
		.prepare<[number], { packet: string; at: string }>(
			"SELECT l.packet, p.ended_at AS at FROM lasting l JOIN packets p ON p.id = l.packet WHERE l.until = '' LIMIT ?"
		)
		.all(AT_A_TIME);
	if (unknown.length === 0) return;
	const set = db.prepare('UPDATE lasting SET until = ?, method = ? WHERE packet = ?');
	for (const { packet, at } of unknown) {
		const { until, method } = stampsOver(db, at);
		set.run(until, method, packet);
	}
}

/** How long the copies are proven by what is in them. */
export interface Lasting {
	/** the first of them ends then, ISO 8601; null: there are none */
	first: string | null;
	/** how many want another time-stamp now, {@link AT_A_TIME} at most */
	due: number;
}

export function lastingNow(house: House): Lasting {
	const first = house.db
		.prepare<[], string>("SELECT until FROM lasting WHERE until > '' ORDER BY until LIMIT 1")
		.pluck()
		.get();
	return { first: first ?? null, due: dueRows(house).length };
}
