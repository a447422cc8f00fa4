import { isoDay, isWorkingDay } from '../../core/calendar';
import type { Account, LetterJob } from '../accounts';
import { holidayList } from '../holidays';
import { inTransaction, type Db } from '../db';
import type { House } from '../house';
import { queue } from '../jobs/outbox';
import { organisation } from '../settings';
import { TZDate } from '@date-fns/tz';
import { addDays } from 'date-fns';

/** The morning letter: what needs somebody of the office, by mail, on working days at seven. Off until they ask for it. */
const HOUR = 7;

export const wantsMorning = (db: Db, account: string): boolean =>
	db.prepare('SELECT 1 FROM morning_letters WHERE account = ?').get(account) !== undefined;

export function setMorning(house: House, account: Account, on: boolean): void {
	if (!on) house.db.prepare('DELETE FROM morning_letters WHERE account = ?').run(account.id);
	else
		house.db
			.prepare('INSERT OR IGNORE INTO morning_letters (account, due_at) VALUES (?, ?)')
			.run(account.id, nextMorning(house));
}

/** The next seven o'clock of a working day in the office's zone, ISO 8601. */
function nextMorning({ db, now }: House): string {
	const { zone } = organisation(db);
	const holidays = new Set(holidayList({ db }).map(({ day }) => day));
	for (let i = 0; i < 400; i++) {
		const local = addDays(new TZDate(now().getTime(), zone), i);
		local.setHours(HOUR, 0, 0, 0);
		const at = new Date(local.getTime()).toISOString();
		if (local.getTime() > now().getTime() && isWorkingDay(isoDay(zone, at), holidays)) return at;
	}
	// a year of holidays: it is asked again then
	return new Date(now().getTime() + 365 * 86_400_000).toISOString();
}

const AT_A_TIME = 20;

/** Asks for the letters that are due, each once, and says when the next one is. */
export function askMornings(house: House): void {
	const { db } = house;
	const now = house.now().toISOString();
	const due = db
		.prepare<[string, number], string>('SELECT account FROM morning_letters WHERE due_at <= ? ORDER BY due_at LIMIT ?')
		.pluck()
		.all(now, AT_A_TIME);
	if (due.length === 0) return;
	const next = nextMorning(house);
	inTransaction(db, () => {
		for (const account of due) {
			queue(house, 'letter', `morning:${account}:${now.slice(0, 10)}`, {
				account,
				purpose: 'morning'
			} satisfies LetterJob);
			db.prepare('UPDATE morning_letters SET due_at = ? WHERE account = ?').run(next, account);
		}
	});
}
