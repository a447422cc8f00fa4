import { canonicalJson, extend, GENESIS } from '../../core/audit';
import type { Account } from '../accounts/levels';
import { inTransaction, type Db } from '../db';
import type { House } from '../house';
import { sha256Text } from '../ids';
import type { OfficeActor, OfficeEvent, RecordedOfficeEvent } from './events';

export { numberOf, sentenceOf, type FolderChange, type OfficeEvent, type RecordedOfficeEvent } from './events';

/** Who did it and from where: somebody of the office, somebody without an account, or Pellum itself. */
export interface Doer {
	account: Account | null;
	address: string;
}

/** What Pellum does by itself. */
export const BY_ITSELF: Doer = { account: null, address: '' };

/** Writes one event after the last, in the caller's transaction where there is one. Its time is never before the last one's. */
export function note(house: Pick<House, 'db' | 'now'>, doer: Doer, event: OfficeEvent): void {
	inTransaction(house.db, () => {
		const last = house.db
			.prepare<[], { n: number; at: string; hash: string }>(
				"SELECT n, body ->> '$.at' AS at, hash FROM office_events ORDER BY n DESC LIMIT 1"
			)
			.get();
		const now = house.now().toISOString();
		const n = (last?.n ?? 0) + 1;
		const by: OfficeActor = doer.account
			? {
					kind: 'office',
					account: doer.account.id,
					name: doer.account.name,
					...(doer.account.key !== undefined && { key: doer.account.key })
				}
			: { kind: doer === BY_ITSELF ? 'pellum' : 'visitor' };
		const whole: RecordedOfficeEvent = {
			n,
			at: last && last.at > now ? last.at : now,
			by,
			...(doer.address && { address: doer.address }),
			...event
		};
		const [link] = extend(sha256Text, last?.hash ?? GENESIS, [canonicalJson(whole)]);
		house.db.prepare('INSERT INTO office_events (n, body, hash) VALUES (?, ?, ?)').run(n, link!.body, link!.hash);
	});
}

/** Newest first, `most` of them, those before event `before`. */
export function officeEvents(db: Db, before = Number.MAX_SAFE_INTEGER, most = 100): RecordedOfficeEvent[] {
	return db
		.prepare<[number, number], { body: string }>('SELECT body FROM office_events WHERE n < ? ORDER BY n DESC LIMIT ?')
		.all(before, most)
		.map(({ body }) => JSON.parse(body) as RecordedOfficeEvent);
}

/** The last event's number and hash; 0 and the chain's beginning where there is none. */
export function officeHead(db: Db): { n: number; hash: string } {
	return (
		db.prepare<[], { n: number; hash: string }>('SELECT n, hash FROM office_events ORDER BY n DESC LIMIT 1').get() ?? {
			n: 0,
			hash: GENESIS
		}
	);
}
