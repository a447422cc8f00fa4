import { canonicalJson } from '../../core/audit';
import { CLOCKS, facetsOf, mondayOf, type CountedWait } from '../../core/pace';
import { isOpen, type Recorded, type SentPacket } from '../../core/packet';
import type { Db } from '../db';
import { countedOf, toCount, WAIT_COLUMNS } from './counts';
import type { Counted } from './forecasting';
import { officeDays } from './office-days';

/** For check-data: the counts, compared with the events, and with each other. */

const isBehind = (db: Db, packet: string): boolean =>
	db.prepare('SELECT 1 FROM pace_behind WHERE packet = ?').get(packet) !== undefined;

/** What is counted of a packet otherwise than its events say. What has just happened may still be to be counted. */
export function waitFaults(db: Db, state: SentPacket, events: readonly Recorded[]): string[] {
	if (isBehind(db, state.packet)) return [];
	// what was a working day when it was counted may be none now
	const plain = (wait: CountedWait) => ({ ...wait, working: null, partOfDay: '', hour: '' });
	const had = canonicalJson(countedOf(db, state.packet).map(plain));
	const wanted = canonicalJson(toCount(state, events, officeDays({ db })).map(plain));
	const foretold = db.prepare('SELECT 1 FROM forecasts WHERE packet = ?').get(state.packet) !== undefined;
	return [
		...(had === wanted ? [] : ['it is counted otherwise than its events say how long it took.']),
		...(foretold === isOpen(state)
			? []
			: [foretold ? 'it is over, and has a forecast.' : 'it is out, and has no forecast.'])
	];
}

/** Counts that are not the sum of what they count. */
export function countFaults(db: Db): string[] {
	const wanted = new Map<string, number>();
	const add = (key: string, n: number) => wanted.set(key, (wanted.get(key) ?? 0) + n);
	for (const wait of db.prepare<[], CountedWait>(`SELECT ${WAIT_COLUMNS} FROM waits`).iterate())
		for (const [facet, value] of facetsOf(wait)) {
			const key = [wait.of, facet, value, wait.folder];
			if (wait.how === null) add([...key, wait.began.slice(0, 13)].join('\n'), 1);
			else
				for (const clock of CLOCKS)
					add(
						[...key, clock, mondayOf(wait.began), clock === 'all' ? wait.days : wait.working, wait.how].join('\n'),
						1
					);
		}
	for (const table of [
		'SELECT of, facet, value, folder, clock, week, days, how, n FROM wait_counts',
		'SELECT of, facet, value, folder, began, n FROM wait_open'
	])
		for (const { n, ...key } of db.prepare<[], Record<string, string | number>>(table).iterate())
			add(Object.values(key).join('\n'), -Number(n));
	for (const { counted } of db.prepare<[], { counted: string }>('SELECT counted FROM forecasts').iterate())
		for (const [key, n] of comingIn(counted)) add(key, n);
	for (const row of db
		.prepare<[], { among: string; day: string; folder: string; n: number }>('SELECT * FROM coming')
		.iterate())
		add(['coming', row.among, row.day, row.folder].join('\n'), -row.n);
	const wrong = [...wanted].filter(([, n]) => n !== 0).map(([key]) => key.split('\n').slice(0, 3).join(' '));
	return [...new Set(wrong)].map((what) => `The number of waits is wrong for ${what.trim()}.`);
}

/** What a forecast counts towards the days to come; nothing where it can't be read. */
function comingIn(counted: string): [string, number][] {
	try {
		const { folder, among, days } = JSON.parse(counted) as Counted;
		return among.flatMap((value) =>
			days.map(([day, n]): [string, number] => [['coming', value, day, folder].join('\n'), n])
		);
	} catch {
		return [];
	}
}
