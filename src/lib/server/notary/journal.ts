import { canonicalJson, extend, firstBroken, GENESIS } from '../../core/audit';
import { JOURNAL_COLUMNS, journalRow, type JournalEntry } from '../../core/notary';
import type { SentPacket } from '../../core/packet';
import { beforeNotary, notaryIn } from '../../core/route';
import { journalSheetInWorker } from '../../press';
import { csvForSpreadsheets } from '../csv';
import type { Db } from '../db';
import type { House } from '../house';
import { sha256Text } from '../ids';
import { MOST, notaryById } from './notaries';

/** The notary's journal: appended in the same transaction as what it tells of, and never changed. */

interface Line {
	n: number;
	body: string;
	hash: string;
}

const linesOf = (db: Db, notary: string): Line[] =>
	db.prepare<[string], Line>('SELECT n, body, hash FROM notary_journal WHERE notary = ? ORDER BY n').all(notary);

/** What was done or refused in a packet, as one more line. `reason`: why it was refused. */
export function enterInJournal(house: House, packet: SentPacket, reason?: string): void {
	const notary = notaryIn(packet.plan);
	if (!notary?.notary) return;
	const { db } = house;
	const last = db
		.prepare<[string], { n: number; hash: string }>(
			'SELECT n, hash FROM notary_journal WHERE notary = ? ORDER BY n DESC LIMIT 1'
		)
		.get(notary.notary.commission);
	const n = (last?.n ?? 0) + 1;
	const entry: JournalEntry = {
		n,
		at: house.now().toISOString(),
		act: notary.notary.act,
		title: packet.plan.title,
		reference: packet.reference,
		documents: packet.plan.papers.map((paper) => paper.digest),
		people: beforeNotary(packet.plan)
			.filter(({ id }) => packet.people[id]?.is !== 'skipped')
			.map(({ id, name }) => ({ name, how: packet.session.confirmed[id] ?? '' })),
		fee: packet.session.begun?.fee ?? '',
		outcome: reason === undefined ? 'done' : 'refused',
		reason: reason ?? ''
	};
	const [link] = extend(sha256Text, last?.hash ?? GENESIS, [canonicalJson(entry)]);
	db.prepare('INSERT INTO notary_journal (notary, n, packet, body, hash) VALUES (?, ?, ?, ?, ?)').run(
		notary.notary.commission,
		n,
		packet.packet,
		link!.body,
		link!.hash
	);
}

/** So many lines of a journal, the newest first. */
export function journalOf(db: Db, notary: string, most = 20): JournalEntry[] {
	return db
		.prepare<[string, number], string>('SELECT body FROM notary_journal WHERE notary = ? ORDER BY n DESC LIMIT ?')
		.pluck()
		.all(notary, most)
		.map((body) => JSON.parse(body) as JournalEntry);
}

/** Whole, with the link of each line. */
export function journalAsCsv(db: Db, notary: string): string {
	const rows = linesOf(db, notary).map(({ body, hash }) => journalRow(JSON.parse(body) as JournalEntry, hash));
	return csvForSpreadsheets([...JOURNAL_COLUMNS], rows);
}

export function journalAsPdf(house: House, id: string): Promise<Uint8Array> {
	const notary = notaryById(house.db, id)!;
	return journalSheetInWorker({
		name: notary.name,
		under: `${notary.jurisdiction} · commission ${notary.number}, ${notary.from} to ${notary.until}`,
		lines: linesOf(house.db, id).map(({ body, hash }) => ({ ...(JSON.parse(body) as JournalEntry), hash }))
	});
}

/** What is wrong with the journals of this database, a sentence each. */
export function journalFaults(db: Db): string[] {
	const all = db.prepare<[number], string>('SELECT id FROM notaries ORDER BY id LIMIT ?').pluck().all(MOST);
	return all.flatMap((notary) => {
		const lines = linesOf(db, notary);
		const broken = firstBroken(sha256Text, lines);
		if (broken >= 0) return [`Journal of notary ${notary}: line ${broken + 1} does not follow from those before it.`];
		const gap = lines.findIndex(({ n, body }, i) => n !== i + 1 || (JSON.parse(body) as JournalEntry).n !== n);
		return gap >= 0 ? [`Journal of notary ${notary}: line ${gap + 1} has another number.`] : [];
	});
}
