import { parse, type Details, type FieldName } from 'mrz';
import type { DocumentKind } from './asked';

/**
 * The machine-readable zone of a document: its lines read by `mrz`, judged after ICAO 9303, parts 3 to 6.
 */

/** How many lines, and how many letters in each. */
export const FORMATS = { TD1: [3, 30], TD2: [2, 36], TD3: [2, 44] } as const;
export type ZoneFormat = keyof typeof FORMATS;

/** Which check digit fails, or which field holds what it can't. */
export interface ZoneFault {
	field: 'number' | 'born' | 'expires' | 'personal' | 'composite' | 'code' | 'issuer' | 'nationality' | 'sex' | 'name';
	is: 'digit' | 'shape';
}

export interface Zone {
	format: ZoneFormat;
	lines: string[];
	kind: DocumentKind;
	/** three letters, ICAO 9303-3 §5 */
	issuer: string;
	number: string;
	/** as they stand there, in A to Z, parts between blanks */
	surname: string;
	given: string;
	/** the name fills its field to the end, so that its last part may be cut off */
	cut: boolean;
	/** ISO 8601 days; null where they can't be read */
	born: string | null;
	expires: string | null;
	faults: ZoneFault[];
}

const FIELDS: Partial<Record<FieldName, ZoneFault>> = {
	documentNumber: { field: 'number', is: 'shape' },
	documentNumberCheckDigit: { field: 'number', is: 'digit' },
	birthDate: { field: 'born', is: 'shape' },
	birthDateCheckDigit: { field: 'born', is: 'digit' },
	expirationDate: { field: 'expires', is: 'shape' },
	expirationDateCheckDigit: { field: 'expires', is: 'digit' },
	personalNumber: { field: 'personal', is: 'shape' },
	personalNumberCheckDigit: { field: 'personal', is: 'digit' },
	compositeCheckDigit: { field: 'composite', is: 'digit' },
	documentCode: { field: 'code', is: 'shape' },
	issuingState: { field: 'issuer', is: 'shape' },
	nationality: { field: 'nationality', is: 'shape' },
	sex: { field: 'sex', is: 'shape' },
	lastName: { field: 'name', is: 'shape' },
	firstName: { field: 'name', is: 'shape' }
};

/** The format that lines have by their number and length; null for none of them. */
function formatOf(lines: readonly string[]): ZoneFormat | null {
	const found = (Object.entries(FORMATS) as [ZoneFormat, readonly [number, number]][]).find(
		([, [count, width]]) => lines.length === count && lines.every((line) => line.length === width)
	);
	return found && lines.every((line) => /^[A-Z0-9<]+$/.test(line)) ? found[0] : null;
}

/**
 * Reads a zone. Nothing is mended: what a check digit or the alphabet of a field contradicts is a fault.
 * @param lines as they were read, in A to Z, 0 to 9 and `<`
 * @param today ISO 8601; two digits of a year stand for the last one that is not in the future (birth), and for the nearest (expiry)
 * @returns null where these are no lines of a zone
 */
export function readZone(lines: readonly string[], today: string): Zone | null {
	const format = formatOf(lines);
	if (!format) return null;
	const result = parse([...lines]);
	// cards of two lines are of one shape, whatever the library calls those of one country
	const faults = new Map<string, ZoneFault>();
	for (const detail of result.details) {
		const fault = detail.valid ? null : faultOf(detail, lines);
		if (fault) faults.set(`${fault.field} ${fault.is}`, fault);
	}
	const { surname, given, cut } = nameIn(format, lines);
	if (surname === '') faults.set('name shape', { field: 'name', is: 'shape' });
	const raw = (field: FieldName) => result.details.find((detail) => detail.field === field);
	const text = (field: FieldName) => {
		const detail = raw(field);
		return detail ? lines[detail.line]!.slice(detail.start, detail.end).replaceAll('<', ' ').trim() : '';
	};
	return {
		format,
		lines: [...lines],
		kind: kindOf(format, lines[0]!),
		issuer: lines[0]!.slice(2, 5).replaceAll('<', ''),
		number: result.documentNumber ?? text('documentNumber'),
		surname,
		given,
		cut,
		born: dayOf(text('birthDate'), today, 'past'),
		expires: dayOf(text('expirationDate'), today, 'near'),
		faults: [...faults.values()]
	};
}

function faultOf(detail: Details, lines: readonly string[]): ZoneFault | null {
	const fault = detail.field ? FIELDS[detail.field] : undefined;
	if (!fault) return null;
	// made-up and stateless holders have codes of their own (ICAO 9303-3 §5, part D): the specimen's UTO among them
	if (fault.field === 'issuer' || fault.field === 'nationality')
		return /^[A-Z]{1,3}<*$/.test(lines[detail.line]!.slice(detail.start, detail.end)) ? null : fault;
	// an optional number may be left out together with its digit
	return fault;
}

/** ICAO 9303-4 §4.2.2: P; -5 and -6: A, C, I. A residence permit is an A or an I whose second letter says so, where it does. */
function kindOf(format: ZoneFormat, first: string): DocumentKind {
	if (format === 'TD3') return 'passport';
	return /^(IR|AR|CR|RP)/.test(first) ? 'residence permit' : 'identity card';
}

function nameIn(format: ZoneFormat, lines: readonly string[]): { surname: string; given: string; cut: boolean } {
	const field = format === 'TD1' ? lines[2]! : lines[0]!.slice(5);
	const [surname = '', ...rest] = field.split('<<');
	const plain = (part: string) => part.replaceAll('<', ' ').replaceAll(/ +/g, ' ').trim();
	return { surname: plain(surname), given: plain(rest.join(' ')), cut: !field.endsWith('<') };
}

/** `YYMMDD` as a day that there is; null for any other. */
function dayOf(text: string, today: string, which: 'past' | 'near'): string | null {
	const [, yy, mm, dd] = /^(\d\d)(\d\d)(\d\d)$/.exec(text) ?? [];
	if (!yy) return null;
	const now = Number(today.slice(0, 4));
	const centuries = [Math.floor(now / 100) * 100 + 100, Math.floor(now / 100) * 100, Math.floor(now / 100) * 100 - 100];
	const years = centuries.map((century) => century + Number(yy));
	const year =
		which === 'past'
			? years.find((one) => `${one}-${mm}-${dd}` <= today)!
			: years.toSorted((a, b) => Math.abs(a - now) - Math.abs(b - now))[0]!;
	const day = `${year}-${mm}-${dd}`;
	const date = new Date(`${day}T00:00:00Z`);
	return !Number.isNaN(date.getTime()) && date.toISOString().startsWith(day) ? day : null;
}

const VALUE = (letter: string): number => (letter === '<' ? 0 : parseInt(letter, 36));

/**
 * Whether the check digits of a zone can tell one letter from another at all (ICAO 9303-3 §4.9): they are sums of values by weights
 * that have no factor in common with ten, so that they are blind to letters whose values are tens apart, such as `0`, `A` and `K`.
 */
export const toldApart = (was: string, now: string): boolean => (VALUE(was) - VALUE(now)) % 10 !== 0;
