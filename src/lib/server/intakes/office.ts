import type { Account } from '../accounts';
import type { House } from '../house';
import { looker, MAY_SEE_PACKET } from '../folders';
import { newToken } from '../ids';
import type { CaseRow } from '../../core/intake';
import type { Place } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { caseById } from './case';
import { readIntake } from './store';

/** What the office sees of cases. */

interface Row extends Pick<CaseRow, 'id' | 'visitor' | 'email' | 'begunAt' | 'seenAt' | 'page' | 'packet'> {
	n: number;
	seen: string | null;
	reference: string | null;
	status: string | null;
	thread: string | null;
	taken: 0 | 1;
}

const PAGE = 100;

/** The cases of an intake, the newest first, a hundred at a time. */
export function casesOf(
	house: House,
	account: Account,
	intake: string,
	after: Place = { at: '~', n: 0 }
): { rows: CaseRow[]; next: Place | null } {
	const rows = house.db
		.prepare<Record<string, string | number>, Row>(
			`SELECT c.rowid AS n, c.id, c.visitor, c.email, c.begun_at AS begunAt, c.seen_at AS seenAt, c.page, c.packet, c.taken_by IS NOT NULL AS taken,
			 p.id AS seen, p.reference, p.status, p.thread
			 FROM cases c INDEXED BY cases_of LEFT JOIN packets p ON p.id = c.packet AND ${MAY_SEE_PACKET}
			 WHERE c.intake = @intake AND (c.begun_at, c.rowid) < (@at, @n)
			 ORDER BY c.begun_at DESC, c.rowid DESC LIMIT @most`
		)
		.all({ intake, ...after, most: PAGE + 1, ...looker(house.db, account) });
	const day = new Date(house.now().getTime() - 86_400_000).toISOString();
	const page = rows.slice(0, PAGE).map(({ n: _n, seen, thread, status, ...row }): CaseRow => {
		const hidden = row.packet !== null && seen === null;
		const people = (thread ? (JSON.parse(thread) as { name: string; standing: string }[][]) : []).flat();
		const having = people.filter(({ standing }) => ['notified', 'opened', 'unreachable', 'held'].includes(standing));
		const first = people.find(({ standing }) => standing === 'done');
		return {
			...row,
			...(hidden && { visitor: '', email: '' }),
			packet: seen,
			reference: row.reference ?? '',
			having: having.map(({ name }) => name).join(', '),
			taken: row.taken === 1,
			standing:
				row.packet === null
					? row.seenAt < day
						? 'left'
						: 'begun'
					: hidden
						? 'hidden'
						: status === 'completed'
							? 'done'
							: status === 'out' || status === 'held'
								? first
									? 'waiting'
									: 'handed in'
								: 'ended'
		};
	});
	const last = rows.length > PAGE ? rows[PAGE - 1]! : null;
	return { rows: page, next: last && { at: last.begunAt, n: last.n } };
}

/** How many who have not handed in were last at which page; those of the last weeks, since older ones are swept away. */
export function leftAt(house: House, intake: string): Record<string, number> {
	return Object.fromEntries(
		house.db
			.prepare<[string], { page: string; n: number }>(
				`SELECT page, count(*) AS n FROM cases INDEXED BY cases_left WHERE intake = ? AND handed_at IS NULL GROUP BY page`
			)
			.all(intake)
			.map(({ page, n }) => [page, n])
	);
}

/**
 * Somebody of the office goes on with a case that is stuck: a link to it of their own, with what the visitor has entered. Whoever began
 * it keeps theirs. Refuses one that was handed in, or whose address was never proved: of that one nothing is kept here.
 */
export function takeOver(house: House, account: Account, of: string, id: string): { to: string } | Refusal {
	const one = caseById(house, id);
	if (isRefusal(one)) return one;
	if (one.intake !== of) return refuse('case-gone', 'There is no such case here.');
	const intake = readIntake(house, one.intake);
	if (isRefusal(intake)) return intake;
	if (one.packet !== null) return refuse('case-handed', 'It was handed in. Its packet is under “Out now”.');
	if (!one.entered)
		return refuse('case-unproved', 'Nothing of it is kept here: the visitor has not confirmed an address yet.');
	const { token, hash } = newToken();
	house.db.prepare('UPDATE cases SET taken_by = ?, taken_hash = ? WHERE id = ?').run(account.id, hash, id);
	return { to: `/i/${intake.slug}/${token}` };
}

const KEPT_DAYS = 60;

/** Cases that nobody has gone on with for so many days go, with what was entered. */
export function sweepCases(house: House): number {
	const before = new Date(house.now().getTime() - KEPT_DAYS * 86_400_000).toISOString();
	return house.db
		.prepare(
			'DELETE FROM cases WHERE id IN (SELECT id FROM cases INDEXED BY cases_stale WHERE handed_at IS NULL AND seen_at < ? LIMIT 500)'
		)
		.run(before).changes;
}
