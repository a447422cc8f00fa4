import { isoDay } from '../../core/calendar';
import type { Account } from '../accounts';
import { keepingSetting } from '../filing';
import { looker, MAY_SEE_PACKET } from '../folders';
import type { House } from '../house';
import { retentionRules } from '../packets/kept';
import { rowsOf, type PacketRow } from '../packets/rows';
import { organisation } from '../settings';
import { permitted } from '../access';
import { holdsOn } from './holds';

/** What is to go: kept for as long as it had to be, or in the bin for as long as that keeps. */

export interface DueRow extends PacketRow {
	/** by which rule, in its name; 'bin'; or 'said so', where somebody has set the day */
	by: string;
	/** the holds it is under, by name: nothing of it goes */
	holds: string[];
	/** who has agreed already, where two must */
	agreed: string | null;
	/** whether this account may decide on it */
	mine: boolean;
}

/** So many are shown at once; those behind come when these are gone. */
const MOST = 200;

const BINNED = `p.put = 'bin' AND p.put_at < @binnedBefore AND (p.kept_until IS NULL OR p.kept_until < @today)`;

const moments = (house: House) => ({
	today: isoDay(organisation(house.db).zone, house.now().toISOString()),
	binnedBefore: new Date(house.now().getTime() - keepingSetting(house.db).binDays * 86_400_000).toISOString()
});

/** The longest over first. */
export function dueRows(house: House, account: Account): DueRow[] {
	const given = { ...moments(house), ...looker(house.db, account), most: MOST };
	const over = house.db
		.prepare<object, { id: string; by: string }>(
			`SELECT p.id, p.kept_by AS by FROM packets p INDEXED BY packets_kept
			 WHERE p.kept_until < @today AND p.ended_at IS NOT NULL AND ${MAY_SEE_PACKET} ORDER BY p.kept_until LIMIT @most`
		)
		.all(given);
	const binned = house.db
		.prepare<object, { id: string; by: string }>(
			`SELECT p.id, 'bin' AS by FROM packets p INDEXED BY packets_put WHERE ${BINNED} AND ${MAY_SEE_PACKET} ORDER BY p.put_at LIMIT @most`
		)
		.all(given);
	const by = new Map([...over, ...binned].map((one) => [one.id, one.by]));
	const names = new Map(retentionRules(house.db).map((rule) => [rule.id, rule.name]));
	const wish = house.db
		.prepare<[string], string>(
			'SELECT a.name FROM disposal_wishes w JOIN accounts a ON a.id = w.account WHERE w.packet = ?'
		)
		.pluck();
	return rowsOf(house.db, [...by.keys()]).map((row) => ({
		...row,
		by: by.get(row.id) === 'bin' ? 'bin' : (names.get(by.get(row.id)!) ?? 'said so'),
		holds: holdsOn(house.db, row.id).map(({ name }) => name),
		agreed: wish.get(row.id) ?? null,
		mine: permitted(house.db, account, 'judge', 'packet', row.id)
	}));
}

/** Held by name, or by who takes part; what a search holds is looked at one by one. */
const NOT_HELD = `NOT EXISTS (SELECT 1 FROM hold_packets x CROSS JOIN holds h ON h.id = x.hold WHERE x.packet = p.id AND h.lifted_at IS NULL)
	AND NOT EXISTS (SELECT 1 FROM packet_people e WHERE e.packet = p.id AND e.email COLLATE NOCASE IN
	(SELECT what FROM holds WHERE of = 'person' AND lifted_at IS NULL))`;

/** Those that go by themselves: by a rule that says so, and from the bin; none where two must agree. */
export function goingByThemselves(house: House, most: number): string[] {
	if (keepingSetting(house.db).two) return [];
	const rules = retentionRules(house.db).filter((rule) => rule.then === 'dispose');
	const given = { ...moments(house), rules: JSON.stringify(rules.map(({ id }) => id)) };
	const going = new Set<string>();
	for (const sql of [
		`SELECT p.id FROM packets p INDEXED BY packets_kept WHERE p.kept_until < @today AND p.ended_at IS NOT NULL
		 AND p.kept_by IN (SELECT value FROM json_each(@rules)) AND ${NOT_HELD} ORDER BY p.kept_until`,
		`SELECT p.id FROM packets p INDEXED BY packets_put WHERE ${BINNED} AND ${NOT_HELD} ORDER BY p.put_at`
	])
		for (const id of house.db.prepare<object, string>(sql).pluck().iterate(given)) {
			if (going.size >= most) break;
			if (holdsOn(house.db, id).length === 0) going.add(id);
		}
	return [...going];
}
