import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { agreement } from '../../../bench/words';
import { ok } from '../../../e2e/kit/house';
import { MORE, onePage, stream } from '../../../e2e/kit/raw-pdf';
import { takeIn } from './take-in';

const READ = 'demo/reading';
const SET = 'demo/forms/others';

/** Documents by programs that aren't ours, and by which: held against Poppler's reading. */
const DOCUMENTS: [string, string][] = [
	[`${SET}/plain-paper.pdf`, 'TeX'],
	[`${SET}/plain-handbook.pdf`, 'LibreOffice'],
	[`${SET}/plain-slides.pdf`, 'Chromium'],
	[`${READ}/ghostscript.pdf`, 'Ghostscript'],
	[`${READ}/scanner.pdf`, 'a scanner’s own words'],
	[`${READ}/office-turned.pdf`, 'pages turned by 90, 180 and 270 degrees']
];

describe('words are read whole', () => {
	it('as another reader has them, on documents of five producers, and on turned pages', async () => {
		const whole = { theirs: 0, ours: 0, both: 0 };
		for (const [file] of DOCUMENTS) {
			const taken = ok(await takeIn(new Uint8Array(readFileSync(file))));
			const one = agreement(file, taken.words, taken.pages);
			// formulas are cut otherwise by every reader
			expect(one.both / one.theirs, file).toBeGreaterThanOrEqual(0.98);
			expect(one.both / one.ours, file).toBeGreaterThanOrEqual(0.97);
			for (const what of ['theirs', 'ours', 'both'] as const) whole[what] += one[what];
		}
		expect(whole.both / whole.theirs).toBeGreaterThanOrEqual(0.99);
		expect(whole.both / whole.ours).toBeGreaterThanOrEqual(0.97);
	});
	it.each([
		['office-right-to-left', 1],
		['browser-scripts', 0.94]
	])('in other scripts, set wide, or turned beside the page: “%s” against its own words', async (name, least) => {
		const taken = ok(await takeIn(new Uint8Array(readFileSync(`${READ}/${name}.pdf`))));
		const truth = JSON.parse(readFileSync(`${READ}/${name}.json`, 'utf8')) as string[];
		const left = taken.words.flat().map((word) => word.text);
		const found = truth.filter((word) => {
			const at = left.indexOf(word);
			if (at >= 0) left.splice(at, 1);
			return at >= 0;
		});
		expect(found.length / truth.length).toBeGreaterThanOrEqual(least);
	});
});

const says = async (content: string, more: string[] = [], page = '') => {
	const bytes = onePage({ content, more, page });
	return ok(await takeIn(bytes)).words[0]!.map((word) => word.text);
};

describe('letters are put together', () => {
	it.each<[string, string, string[]]>([
		['up a page', 'BT /F1 12 Tf 0 1 -1 0 100 20 Tm (Turned words) Tj ET', ['Turned', 'words']],
		['on their head', 'BT /F1 12 Tf -1 0 0 -1 200 100 Tm (Turned words) Tj ET', ['Turned', 'words']],
		['set wide', 'BT /F1 10 Tf 4 Tc 20 100 Td (SIGNED) Tj ET', ['SIGNED']],
		[
			'beside the mark of a footnote',
			'BT /F1 10 Tf 20 100 Td (word) Tj ET BT /F1 6 Tf 42.5 104 Td (2) Tj ET',
			['word', '2']
		]
	])('%s', async (_, content, want) => expect(await says(content)).toEqual(want));
	it('where one sign stands for several, and where a code is none', async () => {
		const map = (rows: string) =>
			stream('', `begincmap 1 begincodespacerange <00> <ff> endcodespacerange ${rows} endcmap`);
		const font = `<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica /ToUnicode 21 0 R >>`;
		const page = `/Resources << /Font << /F2 ${MORE} 0 R >> >>`;
		const office = map(
			'1 beginbfchar <41> <006600660069> endbfchar 3 beginbfchar <6f> <006f> <63> <0063> <65> <0065> endbfchar'
		);
		expect(await says('BT /F2 12 Tf 20 100 Td (oAce) Tj ET', [font, office], page)).toEqual(['office']);
		const none = map('1 beginbfchar <41> <DBFFDFFFFFFF> endbfchar 2 beginbfchar <6f> <006f> <6b> <006b> endbfchar');
		expect((await says('BT /F2 12 Tf 20 100 Td (ok A) Tj ET', [font, none], page))[0]).toBe('ok');
	});
});
