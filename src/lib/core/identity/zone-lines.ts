import { FORMATS, type ZoneFormat } from './zone';

/** Lines of a zone, put right as far as a reader's mistakes leave no doubt. */

/** What a reader takes one for another, where a field's alphabet leaves no doubt. */
const DIGIT_FOR: Record<string, string> = { O: '0', Q: '0', D: '0', I: '1', L: '1', Z: '2', S: '5', G: '6', B: '8' };
const LETTER_FOR: Record<string, string> = { 0: 'O', 1: 'I', 2: 'Z', 5: 'S', 6: 'G', 8: 'B' };

/** The alphabet of each place: d, a digit; a, a letter or filler; anything else, both. ICAO 9303-4 §4.2.2, -5 §4.2.2, -6 §4.2.2. */
const ALPHABETS: Record<ZoneFormat, string[]> = {
	TD3: ['a'.repeat(44), `${'.'.repeat(9)}daaa${'d'.repeat(7)}a${'d'.repeat(7)}${'.'.repeat(16)}`],
	TD2: ['a'.repeat(36), `${'.'.repeat(9)}.aaa${'d'.repeat(7)}a${'d'.repeat(7)}${'.'.repeat(7)}d`],
	TD1: [`aaaaa${'.'.repeat(25)}`, `${'d'.repeat(7)}a${'d'.repeat(7)}aaa${'.'.repeat(11)}d`, 'a'.repeat(30)]
};

/**
 * Lines of a zone from lines as they were read: blanks gone, fillers that were counted wrong put right, digits where only digits can
 * be and letters where only letters can. A letter that a check digit guards is never changed to please it.
 * @returns null where these are no zone's
 */
export function zoneLines(read: readonly string[]): string[] | null {
	const lines = read
		.map((line) => line.toUpperCase().replaceAll(/[^A-Z0-9<]/g, ''))
		.filter((line) => line.length >= 24);
	const formats = Object.entries(FORMATS) as [ZoneFormat, readonly [number, number]][];
	for (const [format, [count, width]] of formats.toReversed()) {
		for (let from = lines.length - count; from >= 0; from--) {
			const some = lines.slice(from, from + count).map((line, i) => ofWidth(line, width, endsOpen(format, i)));
			if (some.every((line) => line !== null) && begins(format, some[0]!))
				return some.map((line, i) => inAlphabet(line, ALPHABETS[format][i]!));
		}
	}
	return null;
}

/** Lines that end with fillers, and with no check digit. */
const endsOpen = (format: ZoneFormat, line: number): boolean => line === 0 || (format === 'TD1' && line === 2);
const begins = (format: ZoneFormat, line: string): boolean => (format === 'TD3' ? /^[PV]/ : /^[ACI]/).test(line);

/** How many letters a line may have been read too many or too few. */
const MISCOUNTED = 5;

function ofWidth(line: string, width: number, ends: boolean): string | null {
	// a run of fillers is taken for letters that look alike: where nothing but fillers can follow, they are none
	const clean = ends
		? line
				.replace(/(?<=<<<)[<KCLSEXGIT1]+$/, (run) => '<'.repeat(run.length))
				.replace(/[<KCL]{5,}[KCL]$/, (run) => '<'.repeat(run.length))
		: line.replaceAll(/(?<=<)[KCLE](?=<)/g, '<');
	if (clean.length === width) return clean;
	if (Math.abs(clean.length - width) > MISCOUNTED) return null;
	const run = [...clean.matchAll(/<+/g)].toSorted((a, b) => b[0].length - a[0].length)[0];
	if (!run) return null;
	const length = run[0].length + width - clean.length;
	return length < 1 ? null : clean.slice(0, run.index) + '<'.repeat(length) + clean.slice(run.index + run[0].length);
}

function inAlphabet(line: string, alphabet: string): string {
	return [...line]
		.map((letter, i) =>
			alphabet[i] === 'd'
				? (DIGIT_FOR[letter] ?? letter)
				: alphabet[i] === 'a'
					? (LETTER_FOR[letter] ?? letter)
					: letter
		)
		.join('');
}
