import { cutText, oneLine } from '../clean-text';
import { folded } from '../folded';
import type { SentPacket } from '../packet';
import { filledIn } from '../template';

/** How files that leave the house are called: by a pattern with values of their packet, safe on every system. */

/** What they are called where nobody has said otherwise. */
export const PATTERN = '{document} {reference}';

/** What a pattern may name besides the keys of answers and `{role.name}`. */
export const NAMED_BY = [
	'{document}',
	'{title}',
	'{reference}',
	'{own reference}',
	'{date}',
	'{person}',
	'{type}',
	'{folder}',
	'{template}'
] as const;

export interface NamedFile {
	/** what the file is called by itself: a document's name, “Evidence sheet” */
	document: string;
	/** when the packet ended, ISO 8601; null while it is out */
	ended: string | null;
	/** what its template was called */
	template: string;
}

/** The longest name in bytes of UTF-8, with its ending: file systems take 255, and archives add folders. */
const MOST_BYTES = 180;

/**
 * A file's name by a pattern, without its ending. Values that are not known are left out; whatever stands twice in a row, as in “signed
 * signed”, stands once. Never empty.
 */
export function nameByPattern(pattern: string, packet: SentPacket, { document, ended, template }: NamedFile): string {
	const { plan } = packet;
	const first = plan.people.find((person) => person.id === plan.stops[0]?.people[0]);
	const own: Record<string, string> = {
		document,
		reference: packet.reference,
		'own reference': plan.sending?.ownReference ?? '',
		date: (ended ?? packet.sentAt).slice(0, 10),
		person: first?.name ?? '',
		type: packet.type,
		folder: packet.folder,
		template
	};
	const text = pattern.replace(/\{\s*([^{}]{1,80}?)\s*\}/g, (whole, name: string) => own[name] ?? whole);
	const filled = filledIn(text, { plan, answers: packet.answers, sender: packet.sender, until: null });
	return safeName(withoutEchoes(filled.replaceAll('…', ' '))) || safeName(document) || 'Document';
}

/** Names that Windows keeps for its devices, whatever ending they have. */
const DEVICES = /^(con|prn|aux|nul|com[0-9¹²³]|lpt[0-9¹²³])(\..*)?$/i;

/** A text as a file's name on any system: no separators and no letters that a shell or a file system takes for its own. */
export function safeName(text: string): string {
	const plain = oneLine(text)
		.replaceAll(/[\\/:*?"<>|]/g, ' ')
		.replaceAll(/\s+/g, ' ')
		// a leading dot hides it, a dot or a blank at the end is dropped by some
		.replace(/^[\s.]+/, '')
		.replace(/[\s.]+$/, '');
	const short = shortened(plain);
	return DEVICES.test(short) ? `${short} -` : short;
}

function shortened(text: string): string {
	let most = MOST_BYTES;
	let cut = cutText(text, most);
	while (new TextEncoder().encode(cut).length > MOST_BYTES) cut = cutText(text, (most -= 10));
	return cut.trim();
}

/** Each run of words that is said again at once is said once. Numbers may well stand twice. */
function withoutEchoes(text: string): string {
	const words = text.split(/\s+/).filter(Boolean);
	for (let long = Math.floor(words.length / 2); long > 0; long -= 1)
		for (let i = 0; i + 2 * long <= words.length;) {
			const run = folded(words.slice(i, i + long).join(' '));
			const again = folded(words.slice(i + long, i + 2 * long).join(' '));
			if (run === again && /\p{L}/u.test(run)) words.splice(i + long, long);
			else i += 1;
		}
	return words.join(' ');
}

/** Names that are there already get a number behind, before their ending; by what they are without capitals, as most systems have it. */
export function distinctNames(): (name: string) => string {
	const seen = new Set<string>();
	return (name) => {
		const [, stem = name, ending = ''] = /^(.*?)(\.[^.]{1,5})?$/s.exec(name) ?? [];
		let one = name;
		for (let n = 2; seen.has(folded(one)); n += 1) one = `${stem} (${n})${ending}`;
		seen.add(folded(one));
		return one;
	};
}
