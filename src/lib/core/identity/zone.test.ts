import { describe, expect, it } from 'vitest';
import { zoneOf, type Specimen } from '../../../../demo/identity/specimens';
import { nameAgainst, readZone, toldApart } from '.';

const TODAY = '2026-11-28';
/** ICAO 9303-4, appendix B */
const PASSPORT = ['P<UTOERIKSSON<<ANNA<MARIA<<<<<<<<<<<<<<<<<<<', 'L898902C36UTO7408122F1204159ZE184226B<<<<<10'];
/** ICAO 9303-5, appendix B */
const CARD = ['I<UTOD231458907<<<<<<<<<<<<<<<', '7408122F1204159UTO<<<<<<<<<<<6', 'ERIKSSON<<ANNA<MARIA<<<<<<<<<<'];
/** ICAO 9303-6, appendix B */
const TWO_LINES = ['I<UTOERIKSSON<<ANNA<MARIA<<<<<<<<<<<', 'D231458907UTO7408122F1204159<<<<<<<6'];

const faults = (lines: string[]) => readZone(lines, TODAY)!.faults.map(({ field, is }) => `${field} ${is}`);

describe('a machine-readable zone', () => {
	it.each([
		['a passport', PASSPORT, 'passport', 'L898902C3'],
		['a card of three lines', CARD, 'identity card', 'D23145890'],
		['a card of two lines', TWO_LINES, 'identity card', 'D23145890']
	])('of %s is read as the standard’s specimen says', (_, lines, kind, number) => {
		expect(readZone(lines, TODAY)).toMatchObject({
			kind,
			issuer: 'UTO',
			number,
			surname: 'ERIKSSON',
			given: 'ANNA MARIA',
			born: '1974-08-12',
			expires: '2012-04-15',
			faults: []
		});
	});

	it('one letter of the number read wrong: that digit fails, and the composite', () => {
		expect(faults([PASSPORT[0]!, PASSPORT[1]!.replace('L898902C3', 'L898902C8')]).sort()).toEqual([
			'composite digit',
			'number digit'
		]);
	});

	it.each([
		['a passport', PASSPORT],
		['three lines', CARD],
		['two lines', TWO_LINES],
		[
			'a made one',
			zoneOf({
				kind: 'passport',
				surname: 'Okonkwo',
				given: 'Ada',
				number: 'X12345678',
				born: '1999-02-28',
				expires: '2031-02-28',
				sex: 'F'
			} satisfies Specimen)
		]
	])('every single letter of %s read wrong is found, or known as one that can’t be', (_, lines) => {
		const letters = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ<';
		const missed: string[] = [];
		lines.forEach((line, row) =>
			[...line].forEach((was, at) => {
				for (const now of letters) {
					if (now === was) continue;
					const wrong = lines.map((one, i) => (i === row ? one.slice(0, at) + now + one.slice(at + 1) : one));
					const zone = readZone(wrong, TODAY);
					if (zone && zone.faults.length === 0 && toldApart(was, now) && guarded(lines, row, at))
						missed.push(`${row}:${at} ${was}→${now}`);
				}
			})
		);
		expect(missed).toEqual([]);
	});

	it('dates are of the century that can be; a day that there is none of is no day', () => {
		const born = (yymmdd: string) => readZone([PASSPORT[0]!, PASSPORT[1]!.replace('740812', yymmdd)], TODAY)!.born;
		expect([born('261127'), born('261129'), born('000229'), born('010229')]).toEqual([
			'2026-11-27',
			'1926-11-29',
			'2000-02-29',
			null
		]);
	});

	it('other lines are none', () => {
		for (const lines of [[], ['P<UTO'], [PASSPORT[0]!], PASSPORT.map((one) => one.toLowerCase()), [...CARD, CARD[0]!]])
			expect(readZone(lines, TODAY)).toBeNull();
	});
});

/** Whether a check digit stands for this place at all: names, issuer, nationality, sex and the document's code have none. */
function guarded(lines: string[], row: number, at: number): boolean {
	if (lines.length === 3) return (row === 0 && at >= 5) || (row === 1 && (at < 7 || (at >= 8 && at < 15) || at >= 18));
	return row === 1 && (at < 10 || (at >= 13 && at < 20) || at >= 21);
}

describe('a name against a zone', () => {
	const against = (name: string, zone: string, most = 1) => {
		const [surname = '', given = ''] = zone.split('<<');
		return nameAgainst(
			name,
			{ surname: surname.replaceAll('<', ' '), given: given.replaceAll('<', ' '), cut: zone.length >= 39 },
			most
		).is;
	};
	it.each([
		['Łukasz Wójcik', 'WOJCIK<<LUKASZ', 'same'],
		['Maria Müller', 'MUELLER<<MARIA', 'same'],
		['Maria Müller', 'MULLER<<MARIA', 'same'],
		['Müller, Maria', 'MUELLER<<MARIA<ANNA', 'same'],
		['Dr Maria Müller', 'MUELLER<<MARIA', 'same'],
		['Jürgen Groß', 'GROSS<<JUERGEN', 'same'],
		['Søren Ørsted', 'OERSTED<<SOEREN', 'same'],
		['Zoë O’Connor-Smith', 'OCONNOR<SMITH<<ZOE', 'same'],
		['Олена Шевченко', 'SHEVCHENKO<<OLENA', 'same'],
		['Дмитрий Щукин', 'SHCHUKIN<<DMITRII', 'same'],
		['Γιώργος Παπαδόπουλος', 'PAPADOPOULOS<<GIORGOS', 'near'],
		['محمد حسن', 'XHSN<<MXHMD', 'same'],
		['Nguyễn Thị Hạnh', 'NGUYEN<<THI<HANH', 'same'],
		['M. Lindqvist', 'LINDQVIST<<MAREN', 'same'],
		['Maren Lindquist', 'LINDQVIST<<MAREN', 'near'],
		['Bartholomew Featherstonehaugh-Cholmondeley', 'FEATHERSTONEHAUGH<CHOLMONDELEY<<BARTHOLO', 'same'],
		['Maren Lindqvist', 'LINDQVIST<<KARIN', 'other'],
		['Maren', 'LINDQVIST<<MAREN', 'other'],
		['Amy Li', 'LU<<AMY', 'other'],
		['山田 太郎', 'YAMADA<<TARO', 'not comparable'],
		['', 'YAMADA<<TARO', 'not comparable']
	])('%s and %s: %s', (name, zone, is) => {
		expect(against(name, zone)).toBe(is);
	});
	it('so many letters off are as many as are permitted', () => {
		expect(['Maren Lindquits', 'Maren Lindqvist'].map((name) => against(name, 'LINDQVIST<<MAREN', 0))).toEqual([
			'other',
			'same'
		]);
		expect(against('Maren Lindquits', 'LINDQVIST<<MAREN', 3)).toBe('near');
	});
});
