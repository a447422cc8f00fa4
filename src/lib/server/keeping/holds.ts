import { Type, type Static } from '@sinclair/typebox';
import { isAddress } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { Line } from '../../core/schema';
import { permitted } from '../access';
import type { Account } from '../accounts';
import { border } from '../border';
import { inTransaction, type Db } from '../db';
import type { House } from '../house';
import { newId } from '../ids';
import { note, type Doer } from '../office-record';
import { searchExpression } from '../search';

/** Legal holds: nothing that one is on goes, by whatever rule and whoever says so, until it is lifted. */

export interface Hold {
	id: string;
	name: string;
	why: string;
	/** packets that were named; whatever somebody takes part in; whatever a search finds: also what comes to be so later */
	of: 'packets' | 'person' | 'search';
	/** the address, or the words; '' for packets */
	what: string;
	by: string;
	at: string;
	lifted: { by: string; at: string; why: string } | null;
	/** how many packets were named */
	packets: number;
}

const Wanted = Type.Object(
	{
		name: Line(120, { minLength: 1 }),
		why: Type.String({ minLength: 1, maxLength: 2000 }),
		of: Type.Union([Type.Literal('packets'), Type.Literal('person'), Type.Literal('search')]),
		what: Line(200),
		packets: Type.Array(Line(40), { maxItems: 1000 })
	},
	{ additionalProperties: false }
);
const wantedBorder = border(Wanted);

/** Sets one. Refuses what it would be on nothing for: no words, no address, no packet that the account may see. */
export function setHold(
	house: House,
	doer: Doer & { account: Account },
	wanted: Static<typeof Wanted>
): Hold | Refusal {
	const hold = wantedBorder(wanted);
	if (isRefusal(hold)) return hold;
	if (hold.why.trim() === '') return refuse('reason-missing', 'Say why. It stands in the office’s record.', 'why');
	if (hold.of === 'person' && !isAddress(hold.what.trim()))
		return refuse('bad-address', `“${hold.what}” can't be an e-mail address.`, 'what');
	if (hold.of === 'search' && searchExpression(hold.what) === '')
		return refuse('words-missing', 'Write the words by which they are found.', 'what');
	const packets = hold.packets.filter((id) => permitted(house.db, doer.account, 'judge', 'packet', id));
	if (hold.of === 'packets' && packets.length === 0)
		return refuse('no-packet', 'None of these packets is one that you may decide on.');
	return inTransaction(house.db, () => {
		const id = newId(house.now());
		house.db
			.prepare('INSERT INTO holds (id, name, why, of, what, by, at) VALUES (?, ?, ?, ?, ?, ?, ?)')
			.run(id, hold.name, hold.why.trim(), hold.of, hold.what.trim(), doer.account.name, house.now().toISOString());
		const one = house.db.prepare('INSERT OR IGNORE INTO hold_packets (packet, hold) VALUES (?, ?)');
		if (hold.of === 'packets') for (const packet of packets) one.run(packet, id);
		// whom it is about is not told: that record is never forgotten
		note(house, doer, { type: 'HoldSet', hold: id, called: hold.name, of: hold.of, why: hold.why.trim() });
		house.changes.emit('packet', '');
		return listHolds(house.db).find((each) => each.id === id)!;
	});
}

export function liftHold(house: House, doer: Doer & { account: Account }, id: string, why: string): Hold | Refusal {
	if (doer.account.level !== 'owner') return refuse('not-yours', 'An owner of the office lifts a legal hold.');
	if (why.trim() === '')
		return refuse('reason-missing', 'Say why it is lifted. It stands in the office’s record.', 'why');
	return inTransaction(house.db, () => {
		const done = house.db
			.prepare('UPDATE holds SET lifted_by = ?, lifted_at = ?, lifted_why = ? WHERE id = ? AND lifted_at IS NULL')
			.run(doer.account.name, house.now().toISOString(), why.trim(), id);
		if (done.changes === 0) return refuse('no-hold', 'There is no such hold any more.');
		const hold = listHolds(house.db).find((one) => one.id === id)!;
		note(house, doer, { type: 'HoldLifted', hold: id, called: hold.name, why: why.trim() });
		house.changes.emit('packet', '');
		return hold;
	});
}

/** Those that hold first, newest first. */
export const listHolds = (db: Db): Hold[] =>
	db
		.prepare<[], Omit<Hold, 'lifted'> & { liftedBy: string | null; liftedAt: string | null; liftedWhy: string | null }>(
			`SELECT id, name, why, of, what, by, at, lifted_by AS liftedBy, lifted_at AS liftedAt, lifted_why AS liftedWhy,
			 (SELECT count(*) FROM hold_packets h WHERE h.hold = holds.id) AS packets
			 FROM holds`
		)
		.all()
		.map(({ liftedBy, liftedAt, liftedWhy, ...hold }) => ({
			...hold,
			lifted: liftedAt === null ? null : { by: liftedBy!, at: liftedAt, why: liftedWhy! }
		}))
		.toSorted((a, b) => Number(a.lifted !== null) - Number(b.lifted !== null) || (a.at < b.at ? 1 : -1));

/** What holds a packet now. */
export function holdsOn(db: Db, packet: string): { id: string; name: string }[] {
	const named = db
		.prepare<[string], { id: string; name: string }>(
			`SELECT h.id, h.name FROM hold_packets x CROSS JOIN holds h ON h.id = x.hold WHERE x.packet = ? AND h.lifted_at IS NULL`
		)
		.all(packet);
	const standing = db
		.prepare<[], { id: string; name: string; of: string; what: string }>(
			"SELECT id, name, of, what FROM holds WHERE lifted_at IS NULL AND of <> 'packets'"
		)
		.all();
	const takesPart = db.prepare('SELECT 1 FROM packet_people WHERE packet = ? AND email = ? COLLATE NOCASE');
	const has = db.prepare(
		'SELECT 1 FROM packet_numbers m CROSS JOIN packets_full t ON t.rowid = m.n WHERE m.packet = ? AND packets_full MATCH ?'
	);
	return [
		...named,
		...standing.filter(({ of, what }) =>
			of === 'person' ? takesPart.get(packet, what) : has.get(packet, searchExpression(what))
		)
	].map(({ id, name }) => ({ id, name }));
}
