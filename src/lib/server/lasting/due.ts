import type { HashName } from '../../press';
import type { Db } from '../db';
import type { House } from '../house';
import { queue } from '../jobs/outbox';
import { methods, OVERLAP, stampsOver } from '../keys';

/** Which copies want another time-stamp, and asking for it. */

const AT_A_TIME = 500;

interface Row {
	/** a packet, or the certificate of a disposal */
	of: string;
	until: string;
	method: HashName;
}

/** Asks for a time-stamp over copies that end within two years, or whose method does; a few hundred at a time. @returns how many */
export function askDue(house: House): number {
	foundOut(house.db);
	const rows = dueRows(house);
	for (const { of, until, method } of rows)
		queue(house, 'keeping', `${of}:stamp:${until}:${method}`, { do: 'stamp', of });
	if (rows.length > 0) house.changes.emit('jobs');
	return rows.length;
}

function dueRows({ db, now }: House): Row[] {
	const soon = new Date(now().getTime() + OVERLAP).toISOString();
	const rows = db
		.prepare<[string, number], Row>(
			"SELECT of, until, method FROM lasting WHERE until > '' AND until < ? ORDER BY until LIMIT ?"
		)
		.all(soon, AT_A_TIME);
	for (const [method, from] of Object.entries(methods(db)))
		if (from < soon)
			rows.push(
				...db
					.prepare<[string, number], Row>('SELECT of, until, method FROM lasting WHERE method = ? LIMIT ?')
					.all(method, AT_A_TIME)
			);
	return rows.slice(0, AT_A_TIME);
}

/** Of copies from before this was kept: when the clock's certificate ends by which they were sealed. */
function foundOut(db: Db): void {
	const unknown = db
		.prepare<[number], { of: string; at: string }>(
			`SELECT l.of, coalesce(p.ended_at, (SELECT d.at FROM disposals d WHERE d.number = CAST(substr(l.of, 10) AS INTEGER))) AS at
			 FROM lasting l LEFT JOIN packets p ON p.id = l.of WHERE l.until = '' LIMIT ?`
		)
		.all(AT_A_TIME);
	if (unknown.length === 0) return;
	const set = db.prepare('UPDATE lasting SET until = ?, method = ? WHERE of = ?');
	for (const { of, at } of unknown) {
		const { until, method } = stampsOver(db, at);
		set.run(until, method, of);
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
