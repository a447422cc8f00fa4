import { cutText } from '../../core/clean-text';
import { refuse, type Refusal } from '../../core/refusal';
import { settle, trackedIn, type Wanted } from './changes';
import { folded, textOfPart, unfolded } from './package';
import { byPlainWay, type PlainWay } from './plain-way';

/** What a Word document was made into. */
export interface Written {
	pdf: Uint8Array;
	/** words shaded or marked yellow: what its writer meant to come back to */
	shaded: string[];
	/** by which way; the plain one leaves out what it does not know */
	by: 'office' | 'plain';
	words: number;
	/** what else a person should know of how it was made */
	notes: string[];
}

const MOST_SHADED = 50;

/** A Word document that has been read and made ready: everything but the pages. */
export interface Read extends Omit<Written, 'pdf' | 'by'> {
	/** the document with its changes settled and everything outside shut off */
	document: Uint8Array;
}

/** A Word document, and how it is wanted where it has tracked changes. */
interface WordJob {
	bytes: Uint8Array;
	changes?: Wanted | 'ask';
}

/**
 * Reads a DOCX (ECMA-376) and makes it ready. Refuses `not-a-docx`, `docx-too-heavy` (a bomb), `docx-external` (parts that
 * lie elsewhere), and `docx-changes` where it has tracked changes and nobody has said how it is wanted.
 */
export function readWord({ bytes, changes = 'ask' }: WordJob): Read | Refusal {
	const word = unfolded(bytes);
	if ('refused' in word) return word;
	const tracked = trackedIn(word);
	if (tracked.changes > 0 && changes === 'ask')
		return refuse(
			'docx-changes',
			`The Word document has ${counted(tracked.changes, 'tracked change')}${tracked.by.length > 0 ? ` by ${tracked.by.join(', ')}` : ''}${tracked.comments > 0 ? ` and ${counted(tracked.comments, 'comment')}` : ''}. Say how it is wanted: with all of them accepted, or as it was before.`
		);
	const notes = [
		...(tracked.changes > 0
			? [
					changes === 'accepted'
						? `${counted(tracked.changes, 'tracked change')} accepted`
						: `as it was before ${counted(tracked.changes, 'tracked change')}`
				]
			: []),
		...(tracked.comments > 0 ? [`${counted(tracked.comments, 'comment')} left out`] : [])
	];
	if (tracked.changes + tracked.comments > 0) settle(word, changes === 'before' ? 'before' : 'accepted');
	const { text, shaded } = textOf(textOfPart(word, word.main));
	const words = text.split(/\s+/).filter(Boolean).length;
	return { document: folded(word), shaded, words, notes };
}

/** The pages of a document made ready by {@link readWord}, the plain way. Refuses `docx-unreadable`. */
export async function wordByPlainWay({ bytes }: { bytes: Uint8Array }): Promise<PlainWay | Refusal> {
	const word = unfolded(bytes);
	if ('refused' in word) return word;
	try {
		return await byPlainWay(word);
	} catch {
		return refuse('docx-unreadable', 'The Word document can’t be read. Save it as PDF and add that.');
	}
}

const counted = (count: number, what: string): string => `${count} ${what}${count === 1 ? '' : 's'}`;

/** All words of the document, and those that are marked or shaded yellow, run by run (ECMA-376-1 §17.3.2.15, §17.3.2.32). */
function textOf(xml: string): { text: string; shaded: string[] } {
	const shaded: string[] = [];
	let text = '';
	for (const paragraph of xml.split(/<\/w:p>/)) {
		let open = '';
		for (const [run] of paragraph.matchAll(/<w:r[ >][\s\S]*?<\/w:r>/g)) {
			const words = [...run.matchAll(/<w:t(?: [^>]*)?>([^<]*)<\/w:t>/g)].map((t) => plain(t[1]!)).join('');
			text += words;
			const yellow =
				/<w:highlight [^>]*w:val="(?:yellow|darkYellow)"/.test(run) ||
				/<w:shd [^>]*w:fill="FFFF[0-9A-F]{2}"/i.test(run);
			if (yellow) open += words;
			else if (open !== '') open = keep(shaded, open);
		}
		if (open !== '') keep(shaded, open);
		text += '\n';
	}
	return { text, shaded };
}

function keep(shaded: string[], text: string): '' {
	const words = cutText(text.trim(), 200);
	if (words !== '' && shaded.length < MOST_SHADED) shaded.push(words);
	return '';
}

function plain(xml: string): string {
	return xml.replace(
		/&(lt|gt|quot|apos|amp);/g,
		(_, name: string) => ({ lt: '<', gt: '>', quot: '"', apos: "'", amp: '&' })[name]!
	);
}
