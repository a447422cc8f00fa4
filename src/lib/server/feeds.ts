import { accountById, type Account } from './accounts';
import { datesAsCalendar } from './dates';
import type { House } from './house';
import { newToken, tokenHash } from './ids';
import { note, type Doer } from './office-record';

/** A calendar of one's own dates under a secret address, of which only the SHA-256 is kept. */

/** Since when an account has one; null where it has none. */
export function feedSince(house: House, account: Account): string | null {
	return (
		house.db
			.prepare<[string], string>('SELECT made_at FROM calendar_feeds WHERE account = ?')
			.pluck()
			.get(account.id) ?? null
	);
}

/** A new secret address; the one before leads nowhere from now on. */
export function newFeed(house: House, by: Doer & { account: Account }): string {
	const { token, hash } = newToken();
	note(house, by, { type: 'CalendarShared', account: by.account.id });
	house.db
		.prepare(
			`INSERT INTO calendar_feeds (account, hash, made_at) VALUES (?, ?, ?)
			 ON CONFLICT (account) DO UPDATE SET hash = excluded.hash, made_at = excluded.made_at`
		)
		.run(by.account.id, hash, house.now().toISOString());
	return `${house.config.origin}/calendar/${token}`;
}

export function endFeed(house: House, by: Doer & { account: Account }): void {
	note(house, by, { type: 'CalendarEnded', account: by.account.id });
	house.db.prepare('DELETE FROM calendar_feeds WHERE account = ?').run(by.account.id);
}

/** The calendar at an address, as what its account may see now; null where it is nobody's. */
export function calendarByAddress(house: House, token: string): string | null {
	const id = house.db
		.prepare<[string], string>('SELECT account FROM calendar_feeds WHERE hash = ?')
		.pluck()
		.get(tokenHash(token));
	const account = id === undefined ? null : accountById(house, id);
	return account && datesAsCalendar(house, account);
}
