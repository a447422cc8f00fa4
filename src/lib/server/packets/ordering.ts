import { isOpen, SORTS, termEndOf, type SentPacket } from '../../core/packet';
import { NOTHING, ordered } from '../../core/folded';
import type { Db } from '../db';
import { chainIds } from '../amending/chain';
import { keptOf } from './kept';
import { packetState } from './state';

/**
 * By what the records are put in order: a row a column, so that any of them is walked along one index. Texts are folded, so that no
 * language's letters stand apart; what a packet hasn't got comes last.
 */
type Ordered = Record<(typeof SORTS.ended)[number], string>;

/** Of what has ended. */
export function orderedBy(db: Db, state: SentPacket): Ordered {
	const text = (words: string | undefined) => ordered(words ?? '');
	const { plan } = state;
	return {
		ended: isOpen(state) ? NOTHING : state.at,
		title: text(plan.title),
		sent: state.sentAt,
		reference: state.reference,
		'own reference': text(plan.sending?.ownReference),
		type: text(state.type),
		folder: text(state.folder),
		people: text(firstOf(state)),
		how: state.status,
		term: termEndOf(state) ?? NOTHING,
		template: text(templateTitle(db, state)),
		sender: text(state.sender.name),
		size: String(sizeOf(db, state)).padStart(15, '0'),
		kept: keptOf(db, state).keptUntil ?? NOTHING
	};
}

function firstOf({ plan }: SentPacket): string {
	const first = plan.people.find((person) => person.id === plan.stops[0]?.people[0]);
	return first?.name || first?.role || '';
}

/** What the template was called in the version that it was made from. */
export function templateTitle(db: Db, { plan }: SentPacket): string {
	const from = plan.from?.[0];
	if (!from) return '';
	return (
		db
			.prepare<[string, number], string | null>(
				`SELECT p.json ->> '$.title' FROM template_versions v JOIN plans p ON p.digest = v.plan WHERE v.template = ? AND v.version = ?`
			)
			.pluck()
			.get(from.template, from.version) ?? ''
	);
}

/** How large its sealed copies and its evidence sheet are together, in bytes; 0 until it is sealed. */
export function sizeOf(db: Db, { sealed, evidence }: SentPacket): number {
	const one = db.prepare<[string], number>('SELECT length(bytes) FROM blobs WHERE digest = ?').pluck();
	return [...Object.values(sealed), ...(evidence ? [evidence] : [])].reduce(
		(sum, digest) => sum + (one.get(digest) ?? 0),
		0
	);
}

/** Writes them, where it has ended; the same again writes nothing. */
export function writeOrder(db: Db, state: SentPacket): void {
	if (isOpen(state)) return;
	const n = db.prepare<[string], number>('SELECT n FROM packet_numbers WHERE packet = ?').pluck().get(state.packet)!;
	const put = state.put?.where ?? '';
	const kept = new Map(orderKept(db, n).map((row) => [row.sort, row]));
	const gone = db.prepare('DELETE FROM packet_order WHERE put = @put AND sort = @sort AND value = @value AND n = @n');
	const one = db.prepare('INSERT INTO packet_order (put, sort, value, n) VALUES (@put, @sort, @value, @n)');
	for (const [sort, value] of Object.entries(orderedBy(db, state))) {
		const was = kept.get(sort);
		if (was?.value === value && was.put === put) continue;
		if (was) gone.run({ ...was, n });
		one.run({ put, sort, value, n });
	}
}

/** What is kept of one packet. */
const orderKept = (db: Db, n: number): { put: string; sort: string; value: string }[] =>
	db
		.prepare<[number], { put: string; sort: string; value: string }>(
			'SELECT put, sort, value FROM packet_order INDEXED BY packet_order_of WHERE n = ? ORDER BY sort'
		)
		.all(n);

/** What hangs together with a packet is kept as long as its longest part: the others are written anew when one has changed. */
export function writeChain(db: Db, state: SentPacket): void {
	if (!state.amended && !state.plan.amends) return;
	for (const id of chainIds(db, state.packet)) {
		const other = packetState(db, id);
		if (id === state.packet || other.status === 'none' || isOpen(other)) continue;
		db.prepare('UPDATE packets SET kept_until = @keptUntil, kept_by = @keptBy WHERE id = @id').run({
			id,
			...keptOf(db, other)
		});
		writeOrder(db, other);
	}
}
