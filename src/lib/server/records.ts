import { folded } from '../core/folded';
import type { Account } from './accounts';
import { inOrder, looker, MAY_SEE_PACKET } from './folders';
import type { House } from './house';
import { ROW_COLUMNS, PAGE, rowOf, rowsOf, type KeptRow, type PacketRow } from './packets/rows';
import { searchExpression } from './search';

/** Finding packets and people; each account finds what it may see. */

/** Packets by their words; in the order of their numbers, which is that of their sending. */
const BY_WORDS =
	'FROM packets_text t CROSS JOIN packet_numbers n ON n.n = t.rowid CROSS JOIN packets p ON p.id = n.packet';
const FOUND = `${BY_WORDS} WHERE packets_text MATCH @match AND ${MAY_SEE_PACKET}`;

type Named = Record<string, string | number>;

/** Finished packets, newest end first, or those whose words match the search, last sent first. */
export function records(house: House, account: Account, search: string, offset = 0): PacketRow[] {
	const match = searchExpression(search);
	if (match === '') return search.trim() === '' ? ended(house, account, offset) : [];
	return house.db
		.prepare<Named, KeptRow>(
			`SELECT ${ROW_COLUMNS} ${FOUND} AND p.ended_at IS NOT NULL ORDER BY t.rowid DESC LIMIT @most OFFSET @offset`
		)
		.all({ ...looker(house.db, account), match, most: PAGE, offset })
		.map(rowOf);
}

function ended({ db }: House, account: Account, offset: number): PacketRow[] {
	const some = inOrder(db, account, 'ended', PAGE, offset);
	if (some) return rowsOf(db, some);
	return db
		.prepare<[number, number], KeptRow>(
			`SELECT ${ROW_COLUMNS} FROM packets p INDEXED BY packets_ended WHERE p.ended_at IS NOT NULL
			 ORDER BY p.ended_at DESC LIMIT ? OFFSET ?`
		)
		.all(PAGE, offset)
		.map(rowOf);
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

/** Every packet somebody takes or took part in, newest first, with the name they have there. */
export function packetsOf(
	house: House,
	account: Account,
	email: string,
	most = PAGE
): (PacketRow & { name: string })[] {
	return house.db
		.prepare<Named, KeptRow & { name: string }>(
			// ids sort by the time they were made
			`SELECT ${ROW_COLUMNS}, q.name FROM packet_people q INDEXED BY people_packets CROSS JOIN packets p ON p.id = q.packet
			 WHERE q.email = @of COLLATE NOCASE AND ${MAY_SEE_PACKET} ORDER BY q.packet DESC LIMIT @most`
		)
		.all({ ...looker(house.db, account), of: email, most })
		.map(rowOf);
}
