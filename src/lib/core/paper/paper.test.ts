import { describe, expect, it } from 'vitest';
import { greyOf, projected, projection, type Grey } from '../picture';
import { codeText, comparePage, judgeReturn, LAID_SCALE, laidGrey, matchWords, readCode, toldByCode } from '.';
import type { Place, SheetOut, SheetSeen, SheetWord } from '.';

/** A page of words, each a block of letters of its own, drawn as ink. */
const page = { width: 300, height: 400 };
const NAMES = ['keeper', 'opens', 'hall', 'before', 'lorry', 'within', 'month', 'chairs', 'stacked', 'lights'];
const words: SheetWord[] = Array.from({ length: 40 }, (_, i) => ({
	text: `${NAMES[i % 10]}${i}`,
	left: 30 + (i % 4) * 62,
	top: 40 + Math.floor(i / 4) * 24,
	width: 46,
	height: 9
}));
const place = (field: string, more: Partial<Place> = {}): Place => ({
	field,
	label: field,
	signed: true,
	required: true,
	oneOf: '',
	left: 40,
	top: 310,
	width: 120,
	height: 28,
	...more
});
const sheet: SheetOut = { paper: 'a', page: 0, ...page, words, places: [place('sign')], code: null };

/** Uprights and levels that differ from letter to letter, as print does. */
function printed(extra: (put: (x: number, y: number) => void) => void = () => {}, but?: SheetWord): Grey {
	const width = Math.round(page.width * LAID_SCALE);
	const height = Math.round(page.height * LAID_SCALE);
	const data = new Uint8Array(width * height).fill(250);
	const put = (x: number, y: number) => {
		const [u, v] = [Math.round(x * LAID_SCALE), Math.round(y * LAID_SCALE)];
		for (let dy = 0; dy < 2; dy++) for (let dx = 0; dx < 2; dx++) data[(v + dy) * width + u + dx] = 30;
	};
	for (const [i, word] of words.entries()) {
		if (word === but) continue;
		for (let letter = 0; letter < 7; letter++) {
			const left = word.left + 1 + letter * 6.4;
			const shape = (i * 7 + letter * 5) % 8;
			for (let t = 0; t < 9; t += 0.4) put(left + (shape & 1 ? 4 : 0), word.top + t);
			for (let t = 0; t < 4; t += 0.4) put(left + t, word.top + (shape & 2 ? 8 : shape & 4 ? 4 : 0));
		}
	}
	extra(put);
	return { width, height, data };
}
const plain = projection(
	[
		{ x: 0, y: 0 },
		{ x: 1, y: 0 },
		{ x: 1, y: 1 },
		{ x: 0, y: 1 }
	],
	[
		{ x: 0, y: 0 },
		{ x: LAID_SCALE, y: 0 },
		{ x: LAID_SCALE, y: LAID_SCALE },
		{ x: 0, y: LAID_SCALE }
	]
)!;
const line = (put: (x: number, y: number) => void, [x, y]: [number, number], [u, v]: [number, number]) => {
	const far = Math.hypot(u - x, v - y);
	for (let t = 0; t <= far; t += 0.3) put(x + ((u - x) * t) / far, y + ((v - y) * t) / far);
};
const compared = (back: Grey, of: SheetOut = sheet) => comparePage(of, printed(), back, [], plain);

describe('the code in the margin', () => {
	const code = { reference: 'P-7K3QM', person: '1a2b3c4d', page: 3, pages: 5, digest: '0123456789abcdef' };
	it('says packet, person, page and digest, in letters that a code packs two at a time', () => {
		expect(codeText(code)).toMatch(/^[0-9A-Z $%*+\-./:]+$/);
		expect(readCode(codeText(code))).toEqual(code);
	});
	it.each(['', 'https://post.example', 'PAGE1/P-7/1A2B3C4D/3/5', codeText(code).toLowerCase()])(
		'is no other code: %s',
		(text) => expect(readCode(text)).toBeNull()
	);
	const out = { reference: 'P-7K3QM', person: '1a2b3c4d99', digest: '0123456789abcdef77', pages: 5 };
	it.each([
		[{}, 2],
		[{ reference: 'P-AAAAA' }, 'of another packet'],
		[{ person: 'ffffffff' }, 'of somebody else'],
		[{ digest: 'ffffffffffffffff' }, 'of an older version'],
		[{ page: 9 }, 'not known']
	])('with %o it is %s', (change, told) => expect(toldByCode([{ ...code, ...change }], out)).toBe(told));
	it('says nothing where there is none', () => expect(toldByCode([], out)).toBeNull());
});

describe('words laid over each other', () => {
	const seen = (turn: number, size: number) => {
		const [cos, sin] = [size * Math.cos(turn), size * Math.sin(turn)];
		const at = (x: number, y: number) => ({ x: 40 + cos * x - sin * y, y: 25 + sin * x + cos * y });
		return {
			at,
			read: words.map((word) => {
				const middle = at(word.left + word.width / 2, word.top + word.height / 2);
				const [width, height] = [word.width * size, word.height * size];
				return { text: word.text, sure: 90, left: middle.x - width / 2, top: middle.y - height / 2, width, height };
			})
		};
	};
	it.each([
		[0, 2],
		[0.06, 1.4],
		[-0.3, 3]
	])('say where the page lies: turned by %d, %d times as large', (turn, size) => {
		const { at, read } = seen(turn, size);
		// a third of them misread, some read where others stand
		const some = read.map((word, i) => (i % 3 === 0 ? { ...word, text: NAMES[i % 10]! } : word));
		const matched = matchWords(words, some)!;
		for (const [x, y] of [
			[0, 0],
			[300, 400]
		] as const) {
			const there = projected(matched.way, { x, y });
			expect(Math.hypot(there.x - at(x, y).x, there.y - at(x, y).y)).toBeLessThan(2 * size);
		}
		expect(matched.share).toBeGreaterThan(0.6);
	});
	it('of another page say nothing', () =>
		expect(
			matchWords(
				words,
				seen(0, 2).read.map((word) => ({ ...word, text: `other${word.text}` }))
			)
		).toBeNull());
	it('too few, the code says it', () => {
		const { at, read } = seen(0.05, 2);
		const corner = (x: number, y: number) => [{ x, y }, at(x, y)] as const;
		const known = [corner(250, 350), corner(290, 350), corner(290, 390), corner(250, 390)];
		const there = projected(matchWords(words.slice(0, 2), read.slice(0, 2), known)!.way, { x: 0, y: 0 });
		expect(Math.hypot(there.x - at(0, 0).x, there.y - at(0, 0).y)).toBeLessThan(4);
		// a folded corner is not believed
		const folded = [
			...known,
			[
				{ x: 0, y: 0 },
				{ x: 500, y: 700 }
			] as const
		];
		const way = matchWords(words, read, folded)!.way;
		expect(Math.hypot(projected(way, { x: 0, y: 0 }).x - at(0, 0).x)).toBeLessThan(4);
	});
});

describe('held against what went out, a page', () => {
	it('as it was has nothing in doubt, and its place is empty', () =>
		expect(compared(printed())).toEqual({ changed: [], writing: [], places: [{ field: 'sign', ink: false }] }));
	it('with a signature that runs out of its place has it filled, and nothing else', () => {
		const back = printed((put) => {
			for (let i = 0; i < 9; i++) line(put, [42 + i * 12, 330], [52 + i * 12, i % 2 ? 304 : 341]);
		});
		expect(compared(back)).toEqual({ changed: [], writing: [], places: [{ field: 'sign', ink: true }] });
	});
	it('with a struck word says which', () => {
		const word = words[17]!;
		const back = printed((put) => {
			line(put, [word.left - 2, word.top + 3], [word.left + word.width + 2, word.top + 6]);
			line(put, [word.left - 2, word.top + 4], [word.left + word.width + 2, word.top + 7]);
		});
		expect(compared(back).changed.map((one) => one.text)).toEqual([word.text]);
	});
	it('with a word gone says which', () =>
		expect(compared(printed(undefined, words[9])).changed.map((one) => one.text)).toEqual([words[9]!.text]));
	it('with writing where no place is says where', () => {
		const back = printed((put) => {
			for (let i = 0; i < 5; i++) line(put, [200 + i * 8, 360], [206 + i * 8, i % 2 ? 348 : 366]);
		});
		const [mark, ...others] = compared(back).writing;
		expect(others).toEqual([]);
		expect(mark!.left).toBeGreaterThan(195);
		expect(mark!.top).toBeGreaterThan(340);
	});
	it('a little beside itself, as paper is, is still the same', () => {
		const off = laidGrey(
			printed(),
			projection(
				[
					{ x: 0, y: 0 },
					{ x: 300, y: 0 },
					{ x: 300, y: 400 },
					{ x: 0, y: 400 }
				],
				[
					{ x: 3, y: 2 },
					{ x: 300 * LAID_SCALE + 1, y: -2 },
					{ x: 300 * LAID_SCALE - 3, y: 400 * LAID_SCALE + 2 },
					{ x: -2, y: 400 * LAID_SCALE - 3 }
				]
			)!,
			page
		);
		expect(compared(off)).toEqual({ changed: [], writing: [], places: [{ field: 'sign', ink: false }] });
	});
	it('half in the shadow too', () => {
		const back = printed();
		for (let i = 0; i < back.data.length; i++) if (i % back.width > back.width / 2) back.data[i]! *= 0.6;
		expect(compared(back).changed).toEqual([]);
	});
});

describe('a return on the whole', () => {
	const sheets: SheetOut[] = [0, 1, 2].map((n) => ({ ...sheet, page: n, places: n === 2 ? [place('sign')] : [] }));
	const seen = (id: string, number: number | null, more: Partial<SheetSeen> = {}): SheetSeen => ({
		id,
		number,
		by: number === null ? null : 'code',
		share: number === null ? null : 0.9,
		foreign: number === null ? 'not known' : null,
		dots: 200,
		sharp: 800,
		found: { changed: [], writing: [], places: [{ field: 'sign', ink: true }] },
		...more
	});
	const whole = [seen('a', 0), seen('b', 1), seen('c', 2)];
	const names = (all: SheetSeen[]) => judgeReturn(sheets, all).doubts.map(({ what, page: n }) => [what, n]);
	it('that is there, unchanged and signed, is in no doubt', () =>
		expect(judgeReturn(sheets, whole.toReversed())).toEqual({ pages: ['a', 'b', 'c'], twice: [], doubts: [] }));
	it('keeps the sharper of two, and lists the other', () =>
		expect(judgeReturn(sheets, [...whole, seen('d', 1, { sharp: 2000 })])).toMatchObject({
			pages: ['a', 'd', 'c'],
			twice: [{ page: 1, picture: 'b' }]
		}));
	it('keeps what came after a page was wanted again, however soft, and the old one until then', () => {
		const old = seen('c', 2, { sharp: 3000, old: true });
		expect(judgeReturn(sheets, [...whole.slice(0, 2), old]).pages[2]).toBe('c');
		expect(judgeReturn(sheets, [...whole.slice(0, 2), old, seen('d', 2, { sharp: 90 })]).pages[2]).toBe('d');
	});
	it.each<[string, SheetSeen[], [string, number | null][]]>([
		['a page missing', whole.slice(1), [['page missing', 0]]],
		['a foreign one', [...whole, seen('x', null, { foreign: 'of somebody else' })], [['foreign page', null]]],
		[
			'nothing written at a place',
			[...whole.slice(0, 2), seen('c', 2, { found: { changed: [], writing: [], places: [] } })],
			[['place empty', 2]]
		],
		['a coarse one', [seen('a', 0, { dots: 60 }), ...whole.slice(1)], [['too coarse', 0]]],
		['a code on another page', [seen('a', 0, { share: 0.1 }), ...whole.slice(1)], [['hardly the same', 0]]],
		['one told by few words alone', [seen('a', 0, { by: 'words', share: 0.2 }), ...whole.slice(1)], []]
	])('with %s says so', (_, all, doubts) => expect(names(all)).toEqual(doubts));
	it('asks one mark of those that are one question', () => {
		const ticks = ['yes', 'no'].map((field) => place(field, { signed: false, oneOf: 'answer' }));
		const asked: SheetOut[] = [{ ...sheet, places: ticks }];
		const with_ = (ink: string[]) =>
			judgeReturn(asked, [
				seen('a', 0, {
					found: { changed: [], writing: [], places: ticks.map(({ field }) => ({ field, ink: ink.includes(field) })) }
				})
			]).doubts.map((doubt) => doubt.text);
		expect([with_(['no']), with_([])]).toEqual([[], ['yes']]);
	});
});

it('greys of a picture in colour are compared as they are', () =>
	expect(greyOf(new Uint8Array([255, 0, 0, 255]), 1, 1).data[0]).toBe(76));
