import type { Before } from './acts';
import type { ActKind } from './asked';

/** A notary's journal: what was done, and what was refused, each line chained to the one before (see `core/audit`). */
export interface JournalEntry {
	/** from 1, without gaps, for each notary */
	n: number;
	/** ISO 8601 */
	at: string;
	act: ActKind;
	/** the document: its title, the packet's reference, and the SHA-256 of its pages */
	title: string;
	reference: string;
	documents: string[];
	people: Before[];
	/** as it was shown; '' where none was */
	fee: string;
	outcome: 'done' | 'refused';
	/** why it was refused */
	reason: string;
}

export const JOURNAL_COLUMNS = [
	'Number',
	'Time',
	'Act',
	'Outcome',
	'Document',
	'Reference',
	'SHA-256 of its pages',
	'Who',
	'How known',
	'Fee',
	'Reason',
	'Link'
] as const;

/** One line of the journal as a row of a table; `hash` is its link in the chain. */
export function journalRow(entry: JournalEntry, hash: string): string[] {
	return [
		String(entry.n),
		entry.at,
		entry.act,
		entry.outcome,
		entry.title,
		entry.reference,
		entry.documents.join(' '),
		entry.people.map((one) => one.name).join('; '),
		entry.people.map((one) => one.how).join('; '),
		entry.fee,
		entry.reason,
		hash
	];
}
