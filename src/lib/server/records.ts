import { folded } from '../core/folded';
import type { Account } from './accounts';
import type { PacketsAsked, Place, PutAway } from '../core/packet';
import { looker, MAY_SEE_PACKET } from './folders';
import type { House } from './house';
import { packetPage, type ListedPacket } from './lists';
import { ROW_COLUMNS, PAGE, rowOf, type KeptRow, type PacketRow } from './packets/rows';
import { searchExpression } from './search';
import { findEnded, type Found } from './words';

/** Finding packets and people; each account finds what it may see. */

/** Packets by their words; in the order of their numbers, which is that of their sending. */
const BY_WORDS =
	'FROM packets_text t CROSS JOIN packet_numbers n ON n.n = t.rowid CROSS JOIN packets p ON p.id = n.packet';
const FOUND = `${BY_WORDS} WHERE packets_text MATCH @match AND p.put IS NOT 'bin' AND ${MAY_SEE_PACKET}`;

type Named = Record<string, string | number>;

/** Finished packets with all the words, in whatever stands in them, last sent first; in the order asked for where there is no search. */
export function records(
	house: House,
	account: Account,
	search: string,
	asked: PacketsAsked = { list: 'ended' }
): { rows: (ListedPacket & { found: Found | null })[]; next: Place | null } {
	if (search.trim() !== '') {
		const { rows, next } = findEnded(house, account, search, asked);
		return { rows: rows.map((row) => ({ ...row, usualHours: null })), next };
	}
	const { rows, next } = packetPage(house, account, asked);
	return { rows: rows.map((row) => ({ ...row, found: null })), next };
}

/** How many are over in the folders that this account sees into: in the records, the archive or the bin. */
export function countEnded(house: House, account: Account, put: PutAway | '' = ''): number {
	return house.db
		.prepare<[string, string], { n: number }>(
			`SELECT coalesce(sum(n), 0) AS n FROM packet_counts
			 WHERE status NOT IN ('out', 'held') AND put = ? AND folder NOT IN (SELECT value FROM json_each(?))`
		)
		.get(put, looker(house.db, account).hidden)!.n;
}

/** Packets in any state whose words match, for the field at the top of every page. */
export function findPackets(house: House, account: Account, search: string, most = 8): PacketRow[] {
	const match = searchExpression(search);
	if (match === '') return [];
	return house.db
		.prepare<Named, KeptRow>(`SELECT ${ROW_COLUMNS} ${FOUND} ORDER BY t.rowid DESC LIMIT @most`)
		.all({ ...looker(house.db, account), match, most })
		.map(rowOf);
}

/** People of packets whose name has the words, each address once. Looked for among the packets that have them. */
export function findPeople(
	house: House,
	account: Account,
	search: string,
	most: number
): { name: string; email: string }[] {
	const match = searchExpression(search);
	if (match === '') return [];
	const words = folded(search).trim().split(/\s+/);
	const seen = new Set<string>();
	return house.db
		.prepare<Named, { name: string; email: string }>(
			`SELECT q.name, q.email ${BY_WORDS} CROSS JOIN packet_people q ON q.packet = p.id
			 WHERE packets_text MATCH @match AND ${MAY_SEE_PACKET} ORDER BY t.rowid DESC LIMIT 400`
		)
		.all({ ...looker(house.db, account), match })
		.filter((person) => {
			const address = person.email.toLowerCase();
			if (seen.has(address)) return false;
			seen.add(address);
			return words.every((word) => folded(`${person.name} ${person.email}`).includes(word));
		})
		.slice(0, most);
}

/** Every packet somebody takes or took part in, newest first, with the name they have there and the intake it came through, if any. */
export function packetsOf(
	house: House,
	account: Account,
	email: string,
	most = PAGE
): (PacketRow & { name: string; intake: string | null })[] {
	return house.db
		.prepare<Named, KeptRow & { name: string; intake: string | null }>(
			// ids sort by the time they were made
			`SELECT ${ROW_COLUMNS}, q.name, (SELECT v.setting ->> '$.heading' FROM cases c JOIN intake_versions v ON v.intake = c.intake AND v.version = c.version
			  WHERE c.packet = p.id) AS intake
			 FROM packet_people q INDEXED BY people_packets CROSS JOIN packets p ON p.id = q.packet
			 WHERE q.email = @of COLLATE NOCASE AND ${MAY_SEE_PACKET} ORDER BY q.packet DESC LIMIT @most`
		)
		.all({ ...looker(house.db, account), of: email, most })
		.map(rowOf);
}
