import { inWords, isFile } from '../../core/field';
import { folded } from '../../core/folded';
import { isOpen, localeOf, type SentPacket } from '../../core/packet';
import { inTransaction, type Db } from '../db';
import type { House } from '../house';
import { packetState } from '../packets/act';
import { derive, wordsToFind } from '../packets/read-tables';
import { wordsOfPaper } from '../papers';
import { pagesKept } from './pages';

/** The words of a packet that has ended, written where they are looked for: its own, its answers, its documents' by page. */

/** A document as its packet had it. */
export interface PaperNamed {
	digest: string;
	name: string;
}

/** The job that does it, after a packet has ended. The same a second time is the same. */
export async function indexWords(house: House, { packet: id }: { packet: string }, done: () => void): Promise<null> {
	const { db } = house;
	const before = packetState(db, id);
	const papers = before.status === 'none' ? [] : before.plan.papers.map((paper) => paper.digest);
	for (const digest of new Set(papers)) await keepPages(house, digest);
	inTransaction(db, () => {
		const state = packetState(db, id);
		const n = db.prepare<[string], number>('SELECT n FROM packet_numbers WHERE packet = ?').pluck().get(id);
		if (state.status !== 'none' && !isOpen(state) && n !== undefined) write(db, state, n);
		done();
	});
	return null;
}

function write(db: Db, state: SentPacket, n: number): void {
	const papers = state.plan.papers.map(({ digest, name }): PaperNamed => ({ digest, name }));
	const answers = answersOf(state);
	const pages = [...new Set(papers.map((paper) => paper.digest))].flatMap((digest) => pagesOf(db, digest));
	const own = wordsToFind(state, derive(state).people);
	db.prepare('DELETE FROM packets_full WHERE rowid = ?').run(n);
	db.prepare('INSERT INTO packets_full (rowid, words) VALUES (?, ?)').run(
		n,
		folded([own, answers, ...pages].join('\n'))
	);
	db.prepare('INSERT OR REPLACE INTO packet_words (n, papers, answers) VALUES (?, ?, ?)').run(
		n,
		JSON.stringify(papers),
		answers
	);
}

/** What was answered, each question once, a line each. Files are named, signatures are no words. */
function answersOf({ plan, answers }: SentPacket): string {
	// what was struck is found as such
	const changes = (plan.amends?.changes ?? []).map(({ words, instead }) =>
		instead === '' ? `Struck: ${words}` : `Instead of “${words}”: ${instead}`
	);
	const lines = plan.fields.flatMap((field) => {
		const answer = answers[field.id];
		if (!answer || 'way' in answer) return [];
		const says = isFile(answer) ? answer.name : inWords(plan, field, answer, localeOf(plan));
		return says === '' ? [] : [`${field.label}: ${says.replace(/\s+/g, ' ')}`];
	});
	return [...new Set([...changes, ...lines])].join('\n');
}

/** The text of each page of a document, as it is kept. */
function pagesOf(db: Db, digest: string): string[] {
	const kept = pagesKept(db, digest);
	return kept
		? db
				.prepare<[number, number], string>('SELECT plain FROM pages_text WHERE rowid BETWEEN ? AND ? ORDER BY rowid')
				.pluck()
				.all(kept.first, kept.first + kept.pages - 1)
		: [];
}

/** So many pages are written before others have their turn: a document may have a thousand. */
const AT_A_TIME = 40;

/** Keeps the text of a document's pages, once. It counts when all of them are there. */
async function keepPages(house: House, digest: string): Promise<void> {
	const { db } = house;
	if (pagesKept(db, digest)) return;
	const texts = wordsOfPaper(house, digest).map((page) => page.map((word) => word.text).join(' '));
	const last = db.prepare<[], number>('SELECT rowid FROM pages_text ORDER BY rowid DESC LIMIT 1').pluck().get() ?? 0;
	const one = db.prepare('INSERT INTO pages_text (rowid, words, plain) VALUES (?, ?, ?)');
	for (let from = 0; from < texts.length; from += AT_A_TIME) {
		inTransaction(db, () =>
			texts.slice(from, from + AT_A_TIME).forEach((text, i) => one.run(last + 1 + from + i, folded(text), text))
		);
		await new Promise((go) => setImmediate(go));
	}
	db.prepare('INSERT INTO paper_texts (digest, first, pages) VALUES (?, ?, ?)').run(digest, last + 1, texts.length);
}
