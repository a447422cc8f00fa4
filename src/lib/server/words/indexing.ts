import { inWords, isFile } from '../../core/field';
import { folded } from '../../core/folded';
import { isOpen, localeOf, type SentPacket } from '../../core/packet';
import { inTransaction } from '../db';
import type { House } from '../house';
import { packetState } from '../packets/act';
import { derive, wordsToFind } from '../packets/read-tables';
import { wordsOfPaper } from '../papers';

/** The words of a packet that has ended, written where they are looked for: its own, its answers, its documents' by page. */

/** A document as its packet had it. */
export interface PaperNamed {
	digest: string;
	name: string;
}

/** The job that does it, after a packet has ended. The same a second time is the same. */
export async function indexWords(house: House, { packet: id }: { packet: string }, done: () => void): Promise<null> {
	const { db } = house;
	inTransaction(db, () => {
		const state = packetState(db, id);
		const n = db.prepare<[string], number>('SELECT n FROM packet_numbers WHERE packet = ?').pluck().get(id);
		if (state.status !== 'none' && !isOpen(state) && n !== undefined) write(house, state, n);
		done();
	});
	return null;
}

function write(house: House, state: SentPacket, n: number): void {
	const { db } = house;
	const papers = state.plan.papers.map(({ digest, name }): PaperNamed => ({ digest, name }));
	const answers = answersOf(state);
	const pages = [...new Set(papers.map((paper) => paper.digest))].flatMap((digest) => pagesOf(house, digest));
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
	const lines = plan.fields.flatMap((field) => {
		const answer = answers[field.id];
		if (!answer || 'way' in answer) return [];
		const says = isFile(answer) ? answer.name : inWords(plan, field, answer, localeOf(plan));
		return says === '' ? [] : [`${field.label}: ${says.replace(/\s+/g, ' ')}`];
	});
	return [...new Set(lines)].join('\n');
}

/** The text of each page of a document, kept when it is first asked for. */
function pagesOf(house: House, digest: string): string[] {
	const { db } = house;
	const kept = db
		.prepare<[string], { first: number; pages: number }>('SELECT first, pages FROM paper_texts WHERE digest = ?')
		.get(digest);
	if (kept)
		return db
			.prepare<[number, number], string>('SELECT plain FROM pages_text WHERE rowid BETWEEN ? AND ? ORDER BY rowid')
			.pluck()
			.all(kept.first, kept.first + kept.pages - 1);
	const texts = wordsOfPaper(house, digest).map((page) => page.map((word) => word.text).join(' '));
	const first =
		(db.prepare<[], number>('SELECT rowid FROM pages_text ORDER BY rowid DESC LIMIT 1').pluck().get() ?? 0) + 1;
	const one = db.prepare('INSERT INTO pages_text (rowid, words, plain) VALUES (?, ?, ?)');
	texts.forEach((text, page) => one.run(first + page, folded(text), text));
	db.prepare('INSERT INTO paper_texts (digest, first, pages) VALUES (?, ?, ?)').run(digest, first, texts.length);
	return texts;
}
