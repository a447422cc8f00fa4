import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { printedLines, printedWords, type Said } from '../../../../../e2e/kit/printed';
import { emptyPlan } from '../../packet';
import type { PageSize, Rect } from '../geometry';
import type { PrintedLine } from '../printed';
import { fit, versionOf, type Version } from './fit';
import { landmarksOf } from './landmarks';
import { markersOn, meaningOfMarker } from './markers';
import { phraseIn } from './pin';
import { Recogniser, verdictOf } from './recognise';
import { matchWords, numbered } from './word-match';

const A4: PageSize = { width: 595, height: 842, rotate: 0 };

/** A document from its lines of text: 20 pt apart, six points a letter; `=` in a line draws a rule of 150 pt there. */
function version(...pages: string[][]): Version {
	const words = pages.map((lines) =>
		lines.flatMap((line, i) => {
			let x = 60;
			return line.split(' ').flatMap((text) => {
				const word = { text, x, y: 760 - i * 20, width: text.length * 6, height: 11 };
				x += (text.length + 1) * 6;
				return text === '=' || text === '' ? [] : [word];
			});
		})
	);
	const drawn = pages.map((lines) => ({
		boxes: [],
		lines: lines.flatMap((line, i): PrintedLine[] => {
			const at = line.indexOf('=');
			const y = 758 - i * 20;
			return at < 0 ? [] : [{ x1: 60 + at * 6, y1: y, x2: 210 + at * 6, y2: y }];
		})
	}));
	return versionOf(
		{ words, drawn },
		pages.map(() => A4)
	);
}

/** A document of sayings and level lines, page by page. */
function doc(pages: Said[][], lines: [number, number, number, number][][] = []) {
	return versionOf(
		{
			words: pages.map(printedWords),
			drawn: pages.map((_, i) => ({ boxes: [], lines: printedLines(lines[i] ?? []) }))
		},
		pages.map(() => A4)
	);
}

/** A rectangle by its left and top on the page. */
const rectOf = (left: number, top: number, width: number, height: number): Rect => ({
	x: left,
	y: 842 - top - height,
	width,
	height
});

/** Where the field on a line's rule is: the line from 0, the letters before it. */
const on = (line: number, letters: number): Rect => ({
	x: 60 + letters * 6,
	y: 759 - line * 20,
	width: 150,
	height: 16
});

const LETTER = [
	'Guest musician engagement',
	'Dear Maren the orchestra is glad to engage you',
	'The fee for each concert is two hundred',
	'Travel',
	'You travel by the second van unless you say otherwise',
	'Wishes about travel: =',
	'Acceptance',
	'I accept this engagement on the terms above',
	'Signature: =',
	'Telephone: ='
];
const fields = [
	{ id: 'travel', page: 0, rect: on(5, 21) },
	{ id: 'signature', page: 0, rect: on(8, 11) },
	{ id: 'phone', page: 0, rect: on(9, 11) }
];

describe('words matched between two versions', () => {
	const text = fc.array(fc.constantFrom('a', 'b', 'c', 'd', 'e'), { maxLength: 14 });
	it('pairs only equal words and never crosses', () => {
		fc.assert(
			fc.property(text, text, (before, after) => {
				const pairs = [...matchWords(numbered(before, after))]
					.map((to, i) => [i, to] as const)
					.filter(([, to]) => to >= 0);
				expect(pairs.every(([i, to]) => before[i] === after[to])).toBe(true);
				expect(pairs.map(([, to]) => to)).toEqual([...new Set(pairs.map(([, to]) => to))].sort((x, y) => x - y));
			})
		);
	});
	it('finds at least half of the pairs there can be, even where hardly a run stands once', () => {
		const few = fc.array(fc.constantFrom('x', 'y'), { minLength: 5, maxLength: 12 });
		fc.assert(
			fc.property(few, few, (core, other) => {
				// doubled, so that nothing is unique and the shortest way decides alone
				const [a, b] = [
					[...core, ...core],
					[...other, ...other]
				];
				const found = matchWords(numbered(a, b)).filter((to) => to >= 0).length;
				expect(found).toBeLessThanOrEqual(longest(a, b));
				expect(found).toBeGreaterThanOrEqual(longest(a, b) / 2);
			})
		);
	});
	it('keeps everything of a text that was only added to', () => {
		fc.assert(
			fc.property(
				fc.uniqueArray(fc.string({ minLength: 1 }), { minLength: 1, maxLength: 30 }),
				fc.nat(),
				(words, at) => {
					const cut = at % words.length;
					const longer = [...words.slice(0, cut), 'new words', 'new words', ...words.slice(cut)];
					expect([...matchWords(numbered(words, longer))].every((to) => to >= 0)).toBe(true);
				}
			)
		);
	});
});

/** Length of the longest common subsequence, plainly. */
function longest(a: string[], b: string[]): number {
	const rows = [new Array<number>(b.length + 1).fill(0)];
	a.forEach((x, i) => {
		const row = [0];
		b.forEach((y, j) => row.push(x === y ? rows[i]![j]! + 1 : Math.max(rows[i]![j + 1]!, row[j]!)));
		rows.push(row);
	});
	return rows[a.length]![b.length]!;
}

describe('fit', () => {
	it('leaves every field where it is on the same document, without a doubt', () => {
		const done = fit(version(LETTER), version(LETTER), fields);
		expect(done.fields.map((f) => [f.place?.rect, f.sure])).toEqual(fields.map((f) => [f.rect, 1]));
		expect([done.alike, done.added, done.gone]).toEqual([1, [], []]);
	});
	it('follows its words down the page, with other names and sums about', () => {
		const next = [...LETTER];
		next[1] = 'Dear Ruben the orchestra is glad to engage you';
		next.splice(3, 0, 'A line that is new', 'and another one of them', 'and a third line', 'and the fourth of them');
		const done = fit(version(LETTER), version(next), fields);
		expect(done.fields.map((f) => [f.place?.rect.y, f.doubts])).toEqual(fields.map((f) => [f.rect.y - 80, []]));
		expect(done.added.length).toBe(20);
	});
	it('lists a field whose clause is gone, neither dropped nor guessed, and one that went to another page', () => {
		const first = [...LETTER.slice(0, 3), 'Something else is written here now'];
		const done = fit(version(LETTER), version(first, LETTER.slice(6)), fields);
		expect(done.fields[0]).toMatchObject({ id: 'travel', place: null, doubts: ['gone'] });
		expect(done.fields[1]).toMatchObject({ place: { page: 1, rect: { x: 126, y: on(2, 0).y } }, moved: true });
	});
	it('says when a label stands more often than it did', () => {
		const bare = ['Telephone: =', 'of nothing else'];
		const done = fit(version(bare), version(['Telephone: =', 'Telephone: =', 'and words']), [
			{ id: 'phone', page: 0, rect: on(0, 11) }
		]);
		expect(done.fields[0]!.doubts).toContain('count');
	});
	it('says when the line to write on is gone', () => {
		const next = LETTER.map((line) => (line.startsWith('Telephone') ? 'Telephone:' : line));
		expect(fit(version(LETTER), version(next), fields).fields[2]!.doubts).toEqual(['no blank']);
	});
	it('goes by the page’s measure where there are no words, and says so', () => {
		const done = fit(version(LETTER), version(['']), fields);
		expect(done.fields.map((f) => [f.place?.rect, f.doubts])).toEqual(fields.map((f) => [f.rect, ['no words']]));
	});
	it('never gives a place without a doubt when every word is another', () => {
		const next = LETTER.map((line) => line.replace(/[a-z]+/gi, (w) => [...w].reverse().join('x')));
		expect(fit(version(LETTER), version(next), fields).fields.every((f) => f.doubts.length > 0)).toBe(true);
	});
	it('is sure of itself only where a moved text moved all by the same', () => {
		fc.assert(
			fc.property(fc.integer({ min: 0, max: 10 }), fc.integer({ min: 1, max: 6 }), (at, count) => {
				const extra = Array.from({ length: count }, (_, i) => `quite another sentence number ${i} of it`);
				const next = [...LETTER.slice(0, at), ...extra, ...LETTER.slice(at)];
				for (const [i, one] of fit(version(LETTER), version(next), fields).fields.entries()) {
					const line = 5 + (i === 0 ? 0 : i + 2);
					const y = fields[i]!.rect.y - (line >= at ? count * 20 : 0);
					if (one.doubts.length === 0) expect(one.place?.rect.y).toBeCloseTo(y, 1);
				}
			})
		);
	});
});

describe('a pin that a person has chosen', () => {
	const phrase = (text: string, nth: number) => [
		{ id: 'f', page: 0, rect: on(8, 11), pin: { by: 'phrase' as const, text, nth } }
	];
	it('leads along with its phrase, and says how often that stands', () => {
		expect(phraseIn(version(LETTER).text, 'TRAVEL').map((p) => p.base)).toHaveLength(3);
		const next = ['One line more', ...LETTER];
		const [done] = fit(version(LETTER), version(next), phrase('on the terms above', 1)).fields;
		expect([done!.place?.rect.y, done!.doubts]).toEqual([on(9, 0).y, []]);
	});
	it('is listed where its phrase is gone, or stands more often now', () => {
		const gone = LETTER.filter((line) => !line.startsWith('I accept'));
		expect(fit(version(LETTER), version(gone), phrase('on the terms above', 1)).fields[0]!.doubts).toEqual(['gone']);
		const twice = ['I accept this engagement on the terms above', ...LETTER];
		expect(fit(version(LETTER), version(twice), phrase('on the terms above', 1)).fields[0]!.doubts).toContain('count');
	});
	it('to the page keeps it there, whatever the words do', () => {
		const next = ['One line more', ...LETTER];
		const pinned = fields.map((f) => ({ ...f, pin: { by: 'page' as const } }));
		expect(fit(version(LETTER), version(next), pinned).fields.map((f) => f.place?.rect)).toEqual(
			fields.map((f) => f.rect)
		);
	});
	it('without one, the words of its own line come first', () => {
		const stream = version(LETTER).text;
		const words = landmarksOf(stream, 0, { left: 126, top: 842 - 759 + 160 - 16, width: 150, height: 16 });
		expect(stream.tokens[words[0]!.token]!.text).toBe('signature');
	});
});

describe('recognition', () => {
	const known = new Recogniser();
	known.add('letter', LETTER.join(' ').split(' '));
	known.add('hire', 'The hall is hired for one rehearsal and one concert by the orchestra'.split(' '));
	it('knows a document again that has been added to and changed', () => {
		const changed =
			LETTER.join(' ').replace('Maren', 'Ruben').replace('two hundred', 'three hundred and ten') + ' And a clause more';
		const answers = known.ask(changed.split(' '));
		expect([answers[0]!.id, verdictOf(answers)]).toEqual(['letter', 'sure']);
		expect(answers[0]!.share).toBeLessThan(1);
	});
	it('says none for another text, for too few words, and for what was taken out', () => {
		expect(verdictOf(known.ask('Minutes of the meeting on the roof of the old corn store'.split(' ')))).toBe('none');
		expect(verdictOf(known.ask(['Dear']))).toBe('none');
		const other = new Recogniser();
		other.add('letter', LETTER.join(' ').split(' '));
		other.remove((id) => id === 'letter');
		expect(other.ask(LETTER.join(' ').split(' '))).toEqual([]);
	});
	it('asks which where two are as like', () => {
		const two = new Recogniser();
		two.add('one', LETTER.join(' ').split(' '));
		two.add('two', LETTER.join(' ').split(' '));
		expect(verdictOf(two.ask(LETTER.join(' ').split(' ')))).toBe('ask');
	});
});

describe('markers', () => {
	const read = (line: string) => markersOn(version([line]).text.pages[0]!, 0);
	const plan = {
		...emptyPlan(),
		people: [{ id: 'p1', name: '', email: '', duty: 'signs' as const, role: 'Guest musician' }]
	};
	it('are read from a line, over several words, with and without a key', () => {
		const [first, second] = read('I sign ::guest musician.signature:: and ::sender.text.fee:: here');
		expect([first!.role, first!.kind, second!.key]).toEqual(['guest musician', 'signature', 'fee']);
		expect(first!.rect.left).toBeCloseTo(60 + 7 * 6 - 1, 0);
		expect(meaningOfMarker(plan, first!)).toEqual({ person: 'p1', kind: 'signature', key: '' });
		expect(meaningOfMarker(plan, second!)).toEqual({ person: 'sender', kind: 'text', key: 'fee' });
	});
	it('that can’t be understood are told with what comes nearest', () => {
		expect(meaningOfMarker(plan, read('::guest musican.signature::')[0]!)).toEqual({
			unknown: 'a role “guest musican”',
			nearest: 'Guest musician'
		});
		expect(meaningOfMarker(plan, read('::guest_musician.signatur::')[0]!)).toMatchObject({ nearest: 'signature' });
		expect(meaningOfMarker(plan, read('::guest-musician.text.9 to 5::')[0]!)).toMatchObject({
			unknown: 'a key “9 to 5”'
		});
	});
	it('are no times of day, and nothing without their colons', () => {
		expect(read('from 10:30 to 12:00 :: perhaps')).toEqual([]);
	});
});

describe('what neighbours that look alike are told apart by', () => {
	const block = (x: number, head: string): [string, number, number][] => [
		[head, x, 100],
		['Signature', x, 152],
		['Date', x, 192]
	];
	const rules = (x: number): [number, number, number, number][] => [
		[x, 142, x + 180, 142],
		[x, 182, x + 180, 182]
	];
	const sides = (left: string, right: string) =>
		doc([[...block(50, left), ...block(320, right)]], [[...rules(50), ...rules(320)]]);
	const landlord = { id: 'l', page: 0, rect: rectOf(50, 122, 180, 20) };
	it('a signature block goes with its head when blocks change sides', () => {
		const { fields } = fit(sides('Landlord', 'Tenant'), sides('Tenant', 'Landlord'), [landlord]);
		expect(fields[0]!.place!.rect.x).toBeCloseTo(320, 0);
		expect(fields[0]!.doubts).toEqual([]);
	});
	it('is shown for a look, never put silently, when only one head can be found', () => {
		const { fields } = fit(sides('Landlord', 'Tenant'), sides('Tenant', 'Owner of the house'), [landlord]);
		expect(fields[0]!.doubts).toContain('head');
	});
	it('a field that touches two lines follows the one whose foot it stands on', () => {
		const rows = (gap: number) =>
			doc([
				[
					['First answer here please', 50, 100],
					['Second answer here please', 50, 112 + gap],
					['and then some more words below', 50, 160 + gap]
				]
			]);
		const field = { id: 'f', page: 0, rect: rectOf(200, 94, 100, 20) };
		const [one] = fit(rows(0), rows(30), [field]).fields;
		const top = 842 - one!.place!.rect.y - one!.place!.rect.height;
		expect(one!.doubts.length > 0 || Math.abs(top - 124) < 3).toBe(true);
	});
	it('a narrow word does not tell how letters have grown', () => {
		// set 1.2 points larger by another face: of a letter as wide as 5 points that is an eighth
		const line = (size: number) => doc([[['a', 50, 100, size]]]);
		const [one] = fit(line(10), line(11.2), [{ id: 'f', page: 0, rect: rectOf(200, 88, 80, 14) }]).fields;
		expect(Math.abs(one!.place!.rect.x - 200)).toBeLessThan(2);
	});
	it('the rows of a long list are text, and a page’s number is not', () => {
		const page = (n: number): [string, number, number][] => [
			[`${n * 20 + 1}. things`, 50, 60],
			['running text of this page', 50, 300],
			[`Handbook, page ${n + 1} of 3`, 50, 810]
		];
		const { text } = doc([page(0), page(1), page(2)]);
		expect(text.furniture.map((rows) => rows.map((row) => row.words[0]!.text))).toEqual([
			['Handbook,'],
			['Handbook,'],
			['Handbook,']
		]);
	});
	it('a word across the page is no part of its text', () => {
		const across = doc([
			[
				['The fee is paid on the first day', 50, 300],
				['of every month by the hirer', 50, 320]
			]
		]);
		const marked = doc([
			[
				['The fee is paid on the first day', 50, 300],
				['of every month by the hirer', 50, 320],
				['DRAFT', 60, 340, 120]
			]
		]);
		expect(marked.text.tokens.map((t) => t.text)).toEqual(across.text.tokens.map((t) => t.text));
	});
});

describe('a document that borrows from a template', () => {
	it('is asked about, not taken for it; one whose every sentence was touched up is', () => {
		const words = (seed: number, n: number) =>
			Array.from({ length: n }, (_, i) => `w${(i * 7919 + seed * 104729) % 5003}`);
		const template = words(1, 900);
		const others = Array.from({ length: 30 }, (_, i) => words(i + 2, 700));
		const recogniser = new Recogniser();
		recogniser.add('lease', template);
		others.forEach((other, i) => recogniser.add(`other ${i}`, other));
		const borrowed = [...words(99, 300), ...template.slice(200, 600), ...words(98, 300)];
		const touched = template.map((word, i) => (i % 9 === 0 ? `x${i}` : word));
		expect([verdictOf(recogniser.ask(borrowed)), verdictOf(recogniser.ask(touched))]).toEqual(['ask', 'sure']);
	});
});
