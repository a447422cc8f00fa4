import type { Account } from '../accounts';
import type { House } from '../house';
import { looker, MAY_SEE_PACKET } from '../folders';
import { newToken } from '../ids';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { caseById } from './case';
import { readIntake } from './store';

/** What the office sees of cases. */

/** begun: at it within a day; left: longer ago; then as its packet is. */
export type CaseStanding = 'begun' | 'left' | 'handed in' | 'waiting' | 'done' | 'ended' | 'hidden';

export interface CaseRow {
	id: string;
	visitor: string;
	email: string;
	begunAt: string;
	seenAt: string;
	/** the page they were at last, by its id; '' before the first */
	page: string;
	standing: CaseStanding;
	/** its packet, where whoever looks may see it */
	packet: string | null;
	reference: string;
	/** who has it */
	having: string;
	taken: boolean;
}

interface Row {
	id: string;
	visitor: string;
	email: string;
	begunAt: string;
	seenAt: string;
	page: string;
	packet: string | null;
	seen: string | null;
	reference: string | null;
	status: string | null;
	thread: string | null;
	taken: 0 | 1;
}

const PAGE = 100;

/** The cases of an intake, the newest first, a hundred at a time from before a moment. */
export function casesOf(
	house: House,
	account: Account,
	intake: string,
	before = '~'
): { rows: CaseRow[]; more: string | null } {
	const rows = house.db
		.prepare<Record<string, string | number>, Row>(
			`SELECT c.id, c.visitor, c.email, c.begun_at AS begunAt, c.seen_at AS seenAt, c.page, c.packet, c.taken_by IS NOT NULL AS taken,
			 p.id AS seen, p.reference, p.status, p.thread
			 FROM cases c INDEXED BY cases_of LEFT JOIN packets p ON p.id = c.packet AND ${MAY_SEE_PACKET}
			 WHERE c.intake = @intake AND c.begun_at < @before ORDER BY c.begun_at DESC LIMIT @most`
		)
		.all({ intake, before, most: PAGE + 1, ...looker(house.db, account) });
	const day = new Date(house.now().getTime() - 86_400_000).toISOString();
	const page = rows.slice(0, PAGE).map(({ seen, thread, status, ...row }): CaseRow => {
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
	return { rows: page, more: rows.length > PAGE ? page[page.length - 1]!.begunAt : null };
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
