import { describe, expect, it } from 'vitest';
import { printedLines, printedWords, type Said } from '../../../../../e2e/kit/printed';
import type { PageSize, PaperReading, PdfWidget } from '../index';
import { meaningOf, tidyLabel } from './meaning';
import { findPlaces, placesOn } from './places';
import { ownerAmong } from './whose';

const A4: PageSize = { width: 595, height: 842, rotate: 0 };

/** A page of words and lines measured from its top left, as one thinks of it. */
function page(
	words: Said[],
	lines: [x1: number, y1: number, x2: number, y2: number][] = [],
	boxes: [x: number, y: number, width: number, height: number][] = [],
	widgets: PdfWidget[] = []
): PaperReading {
	return {
		words: [printedWords(words)],
		drawn: [
			{
				lines: printedLines(lines),
				boxes: boxes.map(([x, y, width, height]) => ({ x, y: 842 - y - height, width, height }))
			}
		],
		widgets
	};
}
const found = (reading: PaperReading) => placesOn(reading, 0, A4).map((p) => `${p.kind} ${p.label}`);

describe('what a label asks for', () => {
	it.each([
		['Signature of the hirer', 'signature', {}],
		['Signed', 'signature', {}],
		['Unterschrift', 'signature', {}],
		['Initials', 'initials', {}],
		['Date of birth', 'date', {}],
		['Geburtsdatum', 'date', {}],
		['Loan from', 'date', {}],
		['To be returned by', 'date', {}],
		['E-mail', 'email', {}],
		['Courriel', 'email', {}],
		['IBAN', 'text', { pattern: 'iban' }],
		['Telephone', 'text', { pattern: 'phone' }],
		['Postcode', 'text', { pattern: 'postcode' }],
		['Occupation', 'job-title', {}],
		['Name of organisation', 'organisation', {}],
		['Firma', 'organisation', {}],
		['Surname', 'name', { part: 'family' }],
		['First name', 'name', { part: 'given' }],
		['Full name', 'name', {}],
		['Name (in block capitals)', 'name', {}],
		['Name of the instrument', 'text', {}],
		['Deposit (£)', 'number', { decimals: 2, currency: 'GBP' }],
		['Honorar in EUR', 'number', { decimals: 2, currency: 'EUR' }],
		['Number of chairs', 'number', { decimals: 0 }],
		['Purpose of hire', 'text', {}]
	])('“%s”: %s %j', (label, kind, settings) => expect(meaningOf(label)).toEqual({ kind, settings }));
	it.each([
		['Name: ______', 'Name'],
		['(Signature)', 'Signature'],
		['Value (€)', 'Value (€)'],
		['  – Town :', 'Town'],
		['……', '']
	])('“%s” is tidied to “%s”', (raw, label) => expect(tidyLabel(raw)).toBe(label));
});

describe('places that are found', () => {
	it.each<[string, PaperReading, string[]]>([
		['a line after its label', page([['Town:', 50, 100]], [[90, 102, 300, 102]]), ['text Town']],
		['a line above its small print', page([['Signature', 50, 112, 7]], [[50, 102, 250, 102]]), ['signature Signature']],
		['underscores in a word with its label', page([['Town:__________', 50, 100]]), ['text Town']],
		[
			'dots, one by one',
			page([
				['Town', 50, 100],
				...Array.from({ length: 20 }, (_, i): [string, number, number] => ['.', 80 + i * 4, 100])
			]),
			['text Town']
		],
		['an empty box beside its label', page([['Town', 50, 112]], [], [[90, 100, 200, 20]]), ['text Town']],
		['a box with its label in it', page([['Town', 54, 110, 7]], [], [[50, 100, 200, 40]]), ['text Town']],
		['a square and its text', page([['I agree', 70, 108]], [], [[50, 100, 9, 9]]), ['ticks I agree']],
		['a glyph of a square', page([['☐ I agree', 50, 100]]), ['ticks I agree']],
		['a large box: several lines', page([['Remarks', 50, 95]], [], [[50, 100, 300, 90]]), ['text Remarks']]
	])('%s', (_, reading, want) => expect(found(reading)).toEqual(want));
	it('cells of a table by the heading of their column, small ones side by side as one text', () => {
		const grid: [number, number, number, number][] = [
			...[100, 120, 140].map((y): [number, number, number, number] => [50, y, 250, y]),
			...[50, 150, 250].map((x): [number, number, number, number] => [x, 100, x, 140])
		];
		expect(
			found(
				page(
					[
						['Date', 54, 113],
						['Amount', 154, 113]
					],
					grid
				)
			)
		).toEqual(['date Date', 'number Amount']);
		const boxes = Array.from({ length: 5 }, (_, i): [number, number, number, number] => [100 + i * 15, 100, 15, 17]);
		const [place] = placesOn(page([['PIN', 60, 113]], [], boxes), 0, A4);
		expect(place).toMatchObject({ kind: 'text', settings: { boxes: 5 }, rect: { left: 100, width: 75 } });
	});
	it('yes and no as one pick, boxes under one heading as one group', () => {
		const either = placesOn(
			page(
				[
					['Do you drive?', 50, 108],
					['yes', 165, 108],
					['no', 215, 108]
				],
				[],
				[
					[150, 100, 9, 9],
					[200, 100, 9, 9]
				]
			),
			0,
			A4
		);
		expect(either.map((p) => [p.kind, p.key, p.settings['value']])).toEqual([
			['pick-one', 'do_you_drive', 'yes'],
			['pick-one', 'do_you_drive', 'no']
		]);
		const group = placesOn(
			page(
				[
					['Extras', 50, 90],
					['tea', 70, 108],
					['milk', 70, 126]
				],
				[],
				[
					[50, 100, 9, 9],
					[50, 118, 9, 9]
				]
			),
			0,
			A4
		);
		expect(group.map((p) => [p.kind, p.label, p.key, p.settings['value']])).toEqual([
			['ticks', 'Extras', 'extras', 'tea'],
			['ticks', 'Extras', 'extras', 'milk']
		]);
	});
	it('a date is the day of signing where a signature stands by', () => {
		const both = page(
			[
				['Signed:', 50, 100],
				['Date:', 300, 100]
			],
			[
				[90, 102, 280, 102],
				[330, 102, 450, 102]
			]
		);
		expect(found(both)).toEqual(['signature Signed', 'signing-date Date']);
		expect(found(page([['Date:', 300, 100]], [[330, 102, 450, 102]]))).toEqual(['date Date']);
	});
});

describe('places that are none', () => {
	it.each<[string, PaperReading]>([
		['an underlined heading', page([['Conditions of hire', 50, 100]], [[50, 102, 145, 102]])],
		['struck-through words', page([['Staunton Hall', 50, 100]], [[50, 97, 120, 97]])],
		[
			'a rule from margin to margin',
			page([['Some words that run from one margin of this page to the other one', 50, 90]], [[50, 102, 545, 102]])
		],
		[
			'a leader to a page number',
			page([
				['Care', 50, 100],
				['..........................', 80, 100],
				['12', 520, 100]
			])
		],
		['the rule above footnotes', page([['1 Guardian means anybody in law', 50, 771, 7]], [[50, 760, 190, 760]])],
		['a line without a word about it', page([], [[50, 400, 250, 400]])],
		[
			'the lines of a full table',
			page(
				[
					['a', 60, 112],
					['b', 160, 112]
				],
				[
					[50, 100, 250, 100],
					[50, 120, 250, 120],
					[50, 100, 50, 120],
					[150, 100, 150, 120],
					[250, 100, 250, 120]
				]
			)
		],
		[
			'a form field that came filled in',
			page(
				[],
				[],
				[],
				[
					{
						page: 0,
						x: 50,
						y: 700,
						width: 100,
						height: 18,
						name: 'a',
						label: 'A',
						kind: 'text',
						required: false,
						settings: {},
						filled: true
					}
				]
			)
		]
	])('%s', (_, reading) => expect(found(reading)).toEqual([]));
});

describe('whose a blank is, as the worked examples have it', () => {
	const PARTIES = [
		{ id: 'caterer', role: 'Caterer', names: ['Alder Kitchens'] },
		{ id: 'client', role: 'Client', names: ['Brindlevale Touring Orchestra'] }
	];
	const owners = (reading: PaperReading, parties = PARTIES) =>
		placesOn(reading, 0, A4).map((p) => `${p.kind} ${p.label}: ${ownerAmong(p.whose, parties) ?? p.whose.named}`);
	const block = (x: number, head: string): [string, number, number][] => [
		[head, x, 100],
		['Name:', x, 160],
		['Date:', x, 184]
	];
	const lines = (x: number): [number, number, number, number][] => [
		[x, 134, x + 190, 134],
		[x + 32, 162, x + 190, 162],
		[x + 32, 186, x + 110, 186]
	];
	it('two blocks side by side, a bare line under each head', () => {
		expect(
			owners(
				page(
					[...block(50, 'Signed for the Caterer'), ...block(320, 'Signed by the Client')],
					[...lines(50), ...lines(320)]
				)
			)
		).toEqual([
			'signature Signature: caterer',
			'signature Signature: client',
			'name Name: caterer',
			'name Name: client',
			'signing-date Date: caterer',
			'signing-date Date: client'
		]);
	});
	it('by a caption, by an organisation, and a third party that nobody is', () => {
		expect(
			owners(
				page(
					[
						['Client signature', 50, 112, 7],
						['For Alder Kitchens', 50, 170],
						['Signed:', 50, 200],
						['Witness (print name)', 50, 284, 7]
					],
					[
						[50, 102, 250, 102],
						[100, 202, 250, 202],
						[50, 274, 250, 274]
					]
				)
			)
		).toEqual([
			'signature Client signature: client',
			'signature Signed: caterer',
			'name Witness (print name): Witness'
		]);
	});
	it('nobody’s where two are named alike, and not by a word far away when a heading is near', () => {
		const twins = [
			{ id: 'a', role: 'Hall keeper', names: [] },
			{ id: 'b', role: 'Hall owner', names: [] }
		];
		const signed = (head: string) =>
			page(
				[
					['The Client pays.', 50, 60],
					[head, 50, 170],
					['Signed:', 50, 200]
				],
				[[100, 202, 250, 202]]
			);
		expect(owners(signed('For the Hall'), twins)).toEqual(['signature Signed: Hall']);
		expect(owners(signed('For the Witness'))).toEqual(['signature Signed: Witness']);
	});
	it('what stands beside the labels: a phone, and a label that ends the row before', () => {
		expect(
			found(
				page(
					[
						['Telephone:', 50, 100],
						['E-mail:', 300, 100]
					],
					[
						[110, 102, 270, 102],
						[50, 126, 250, 126]
					]
				)
			)
		).toEqual(['text Telephone', 'email E-mail']);
	});
	it('two questions on one row, each with its own answers', () => {
		const squares = [50, 100, 300, 350].map((x): [number, number, number, number] => [x, 100, 9, 9]);
		const both = placesOn(
			page(
				[
					['yes', 63, 108],
					['no', 113, 108],
					['alcohol', 140, 108],
					['yes', 313, 108],
					['no', 363, 108],
					['music', 390, 108]
				],
				[],
				squares
			),
			0,
			A4
		);
		expect(both.map((p) => `${p.kind} ${p.key} ${p.settings['value']}`)).toEqual([
			'pick-one alcohol yes',
			'pick-one alcohol no',
			'pick-one music yes',
			'pick-one music no'
		]);
	});
});

describe('places as forms of others draw them', () => {
	const comb = (open: boolean): [number, number, number, number][] => [
		[100, 114, 190, 114],
		...[...(open ? [] : [100, 190]), 115, 130, 145, 160, 175].map((x): [number, number, number, number] => [
			x,
			107,
			x,
			114
		])
	];
	it.each([true, false])('a comb on a line, its ends open: %s', (open) => {
		const [place] = placesOn(page([['Code', 60, 113]], comb(open)), 0, A4);
		expect(place).toMatchObject({ kind: 'text', settings: { boxes: 6 }, rect: { left: 100, width: 90 } });
	});
	it('the cents beside the pounds, below their heads', () => {
		const grid: [number, number, number, number][] = [
			...[100, 120, 140].map((y): [number, number, number, number] => [50, y, 125, y]),
			...[50, 110, 125].map((x): [number, number, number, number] => [x, 100, x, 140])
		];
		expect(
			found(
				page(
					[
						['Amount', 54, 113],
						['p', 114, 113]
					],
					grid
				)
			)
		).toEqual(['number Amount', 'text p']);
	});
	it('large squares and circles beside their words', () => {
		const reading = page(
			[
				['by post', 82, 116],
				['by mail', 82, 156]
			],
			[],
			[[50, 98, 25, 25]]
		);
		reading.drawn[0]!.rings = [{ x: 50, y: 842 - 163, width: 25, height: 25 }];
		expect(placesOn(reading, 0, A4).map((p) => `${p.settings['text']} ${Math.round(p.rect.width)}`)).toEqual([
			'by post 25',
			'by mail 25'
		]);
	});
	it('bare room after labels, where there are several or one is understood', () => {
		expect(
			found(
				page([
					['Name:', 50, 100],
					['Occupation:', 50, 130]
				])
			)
		).toEqual(['name Name', 'job-title Occupation']);
		expect(found(page([['Wishes:', 50, 100]]))).toEqual([]);
	});
	it('a head of a column far above, words of several faces in reading order', () => {
		const rows = Array.from({ length: 24 }, (_, i): [number, number, number, number] => [
			50,
			100 + i * 22,
			250,
			100 + i * 22
		]);
		const places = placesOn(
			page(
				[
					['When', 54, 115, 9],
					['played', 82, 115, 12]
				],
				[...rows, [50, 100, 50, 606], [250, 100, 250, 606]]
			),
			0,
			A4
		);
		expect([places.length, places.at(-1)!.label]).toEqual([22, 'When played']);
	});
});

describe('places that are none, as forms of others have them', () => {
	const row: [number, number, number, number][] = [
		...[100, 130, 160].map((y): [number, number, number, number] => [50, y, 250, y]),
		...[50, 150, 250].map((x): [number, number, number, number] => [x, 100, x, 160])
	];
	it('cells that hold words, though there is room below them', () => {
		expect(
			found(
				page(
					[
						['Thursday', 54, 110],
						['Corn Exchange', 154, 110],
						['Friday', 54, 140],
						['Guildhall', 154, 140]
					],
					row
				)
			)
		).toEqual([]);
	});
	it('shaded cells of a table; a shaded box that stands alone is one', () => {
		const reading = page(
			[
				['Town', 54, 113],
				['Office use', 154, 113]
			],
			row
		);
		reading.drawn[0]!.shaded = [{ x: 150, y: 842 - 160, width: 100, height: 30 }];
		expect(found(reading)).toEqual(['text Town']);
		const alone = page([['Town', 54, 113]], [], [[90, 100, 200, 20]]);
		alone.drawn[0]!.shaded = [...alone.drawn[0]!.boxes];
		expect(found(alone)).toEqual(['text Town']);
	});
	it('what lies outside the page', () => {
		expect(found(page([['Town:', 50, 860]], [[90, 862, 300, 862]]))).toEqual([]);
	});
	it('heads and feet that run through; initials on every page are wanted', () => {
		const one = page(
			[
				['Reference:', 50, 40],
				['Initials:', 400, 820]
			],
			[
				[110, 42, 300, 42],
				[450, 822, 540, 822]
			]
		);
		const reading: PaperReading = {
			words: Array(4).fill(one.words[0]!),
			drawn: Array(4).fill(one.drawn[0]!),
			widgets: []
		};
		expect(findPlaces(reading, Array(4).fill(A4)).map((p) => p.kind)).toEqual(Array(4).fill('initials'));
	});
});
