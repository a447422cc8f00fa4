import { folded } from '../../folded';
import type { ShownRect } from '../geometry';
import type { Segment } from './segments';

/** What the page says of whose a blank is. */
export interface Whose {
	/** sayings that may name them, the one that weighs most first */
	phrases: string[];
	/** who is named where it is nobody we know: a party's usual name, or what stands after "for the"; '' for none */
	named: string;
}

/** Somebody of a packet, with all that the page may call them. */
export interface Party {
	id: string;
	/** what the template calls their place; '' for none */
	role: string;
	names: string[];
}

/** Names that agreements give their parties, in the languages of the labels we know. */
const PARTY =
	/\b(landlord|tenant|lessor|lessee|employer|employee|client|customer|contractor|supplier|buyer|seller|purchaser|vendor|borrower|lender|guarantor|witness|hirer|owner|licensor|licensee|parent|guardian|musician|volunteer|applicant|claimant|agent|trustee|supervisor|consultant|author|publisher|donor|insurer|caterer|artist|promoter|manager|director|treasurer|secretary|player|member|keeper|vermieter(?:in)?|mieter(?:in)?|arbeitgeber(?:in)?|arbeitnehmer(?:in)?|auftraggeber(?:in)?|auftragnehmer(?:in)?|kaufer(?:in)?|verkaufer(?:in)?|zeug(?:e|in)|burge|bailleur|locataire|employeur|salarie|vendeur|acheteur|temoin|emprunteur|preteur|mandant|prestataire|arrendador|arrendatario|empleador|empleado|vendedor|comprador|testigo|locatore|conduttore|dipendente|venditore|acquirente|testimone|verhuurder|huurder|werkgever|werknemer|koper|verkoper|getuige|wynajmujacy|najemca|pracodawca|pracownik|swiadek)s?\b/;

/** "for and on behalf of the …", "signed by the …", in those languages, with what comes after. */
const FOR =
	/\b(?:for and on behalf of|on behalf of|signed (?:for|by)(?: and on behalf of)?|executed by|for|fur|im namen (?:von|der|des)|pour(?: le compte de)?|por|per|namens|voor)\s+(?:the|den|die|das|der|le|la|les|l|el|il|lo|de|het)?\s*(\p{L}[\p{L}’' -]{2,40})/u;

/** Fields of a block that are always its party's own. */
export const OF_A_BLOCK = ['signature', 'initials', 'name', 'signing-date', 'job-title'];

const HEADING_WORDS = 9;
const REACH = 230;
const MOST_PHRASES = 8;

/**
 * The sayings above a blank, in its column, nearest first, and its own label before them where that can name somebody:
 * "Employee signature". Running text ends the search, since what stands above it is another matter.
 */
export function whoseOf(blank: ShownRect, label: string, kind: string, segments: Segment[], pageWidth: number): Whose {
	const phrases: string[] = [];
	if (OF_A_BLOCK.includes(kind) && label !== '') phrases.push(label);
	const rows = new Map<number, Segment[]>();
	for (const segment of segments) {
		const away = blank.top + blank.height - 3 - segment.base;
		if (away < -1 || away > REACH) continue;
		const right = segment.left + segment.width;
		if (segment.left > blank.left + blank.width + 4 || right < blank.left - 125) continue;
		rows.set(segment.base, [...(rows.get(segment.base) ?? []), segment]);
	}
	for (const [, row] of [...rows].sort(([a], [b]) => b - a)) {
		const nearest = row.sort((a, b) => aside(a, blank) - aside(b, blank))[0]!;
		if (nearest.words.length > HEADING_WORDS && nearest.width > 0.5 * pageWidth) {
			if (FOR.test(folded(nearest.text))) phrases.push(nearest.text);
			break;
		}
		if (nearest.words.length <= HEADING_WORDS && !phrases.includes(nearest.text)) phrases.push(nearest.text);
		if (phrases.length >= MOST_PHRASES) break;
	}
	const named = phrases.map(partyNamed).find((name) => name !== '') ?? '';
	return { phrases, named };
}

/** How far a saying begins from where a blank does, what lies across it counting as near. */
function aside(segment: Segment, blank: ShownRect): number {
	if (segment.left < blank.left && segment.left + segment.width > blank.left) return 0;
	return Math.min(
		Math.abs(segment.left - blank.left),
		Math.abs(segment.left + segment.width - blank.left),
		segment.left > blank.left ? segment.left - blank.left : Infinity
	);
}

/** The party that a saying names; '' where it names none. */
export function partyNamed(phrase: string): string {
	const plain = folded(phrase);
	const usual = PARTY.exec(plain);
	if (usual)
		return titled(phrase.slice(usual.index, usual.index + usual[0].length).replace(/([^s])s$/, '$1') || usual[0]);
	const after = FOR.exec(plain);
	if (!after || plain.length > 70) return '';
	const words = after[1]!.split(/[\s,]+/).slice(0, 3);
	return words.length > 0 && words[0]!.length > 2 ? titled(words.join(' ')) : '';
}

function titled(name: string): string {
	const plain = name.trim().toLocaleLowerCase();
	return plain.charAt(0).toLocaleUpperCase() + plain.slice(1);
}

const DULL = new Set([
	'the',
	'and',
	'for',
	'der',
	'die',
	'das',
	'den',
	'les',
	'des',
	'von',
	'mit',
	'ltd',
	'llp',
	'gmbh',
	'inc',
	'limited',
	'company',
	'signed',
	'signature',
	'name',
	'date',
	'mr',
	'mrs',
	'dr'
]);
const tokens = (text: string): string[] =>
	folded(text)
		.split(/[^\p{L}\p{N}]+/u)
		.filter((word) => word.length > 2 && !DULL.has(word));

/**
 * Whose a blank is among those of a packet: the party that the nearest saying names which names any. Null where none does,
 * where two are named alike, or where somebody else is named before them.
 */
export function ownerAmong(whose: Whose, parties: Party[]): string | null {
	const terms = parties.map(({ role, names }) => {
		const words = new Map<string, number>();
		for (const word of tokens(role)) words.set(word, 3);
		for (const word of names.flatMap(tokens)) words.set(word, Math.max(words.get(word) ?? 0, 2));
		return words;
	});
	for (const phrase of whose.phrases) {
		const said = tokens(phrase);
		const weights = terms.map((words, party) =>
			[...words].reduce((sum, [word, weight]) => {
				const shared = terms.some((other, i) => i !== party && other.has(word));
				return sum + (!shared && said.some((one) => alike(one, word)) ? weight : 0);
			}, 0)
		);
		const best = Math.max(0, ...weights);
		if (best > 0) return weights.filter((w) => w === best).length === 1 ? parties[weights.indexOf(best)]!.id : null;
		if (partyNamed(phrase) !== '') return null;
	}
	return null;
}

/** The same word, or one with an ending: "tenant", "tenants". */
function alike(a: string, b: string): boolean {
	if (a === b) return true;
	const [short, long] = a.length < b.length ? [a, b] : [b, a];
	return short.length >= 5 && long.length - short.length <= 2 && long.startsWith(short);
}
