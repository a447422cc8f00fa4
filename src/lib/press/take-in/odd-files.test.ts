import { describe, expect, it } from 'vitest';
import { isRefusal } from '../../core/refusal';
import { MORE, onePage, rawPdf, stream } from '../../../../e2e/kit/raw-pdf';
import { takeIn } from './take-in';

const WORDS = 'BT /F1 10 Tf 20 150 Td (Good all the same) Tj ET';
const says = async (bytes: Uint8Array): Promise<string> => {
	const taken = await takeIn(bytes);
	return isRefusal(taken)
		? `${taken.code}: ${taken.say}`
		: taken.words
				.flat()
				.map((word) => word.text)
				.join(' ');
};
const nested = (depth: number) => `/PieceInfo << /Pellum ${'[ '.repeat(depth)}${' ]'.repeat(depth)} >>`;

describe('good files that are not as the standard wants them are taken in', () => {
	it.each<[string, Uint8Array]>([
		[
			'an empty place for a signature',
			onePage({
				content: WORDS,
				annots: ['<< /Type /Annot /Subtype /Widget /FT /Sig /T (s) /Rect [20 20 90 40] /F 4 >>']
			})
		],
		['a page without a media box', onePage({ content: WORDS, mediaBox: '' })],
		['a media box that is none', onePage({ content: WORDS, mediaBox: '/MediaBox [0 0 (wide) 200]' })],
		['objects nested deeper than the rewriter can follow', onePage({ content: WORDS, page: nested(300) })],
		['a whole number larger than any', onePage({ content: WORDS, page: '/Odd 99999999999999999999' })],
		[
			'a widget that is no field',
			onePage({ content: WORDS, annots: ['<< /Type /Annot /Subtype /Widget /Rect 7 /Parent 9 >>'] })
		],
		[
			'a form whose fields are their own parents',
			onePage({
				content: WORDS,
				annots: ['<< /Subtype /Widget /FT /Tx /T (a) /Rect [0 0 9 9] /Parent 6 0 R /Kids [6 0 R] >>']
			})
		],
		['a page that calls itself something else', onePage({ content: WORDS, page: '/Type /Template' })],
		[
			'a page tree of odd types',
			rawPdf([
				'<< /Type /Catalog /Pages 2 0 R >>',
				'<< /Type /Page /Kids [3 0 R] /Count 1 >>',
				'<< /Type /Pages /Parent 2 0 R /MediaBox [0 0 300 200] /Contents 4 0 R /Resources << /Font << /F1 5 0 R >> >> >>',
				stream('', WORDS),
				'<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>'
			])
		],
		[
			'a letter whose code is none',
			onePage({
				content: `${WORDS} BT /F2 10 Tf 20 50 Td <01> Tj ET`,
				page: `/Resources << /Font << /F1 5 0 R /F2 ${MORE} 0 R >> >>`,
				more: [
					`<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica /ToUnicode 21 0 R >>`,
					stream(
						'',
						'begincmap 1 begincodespacerange <00> <ff> endcodespacerange 1 beginbfchar <01> <DBFFDFFFFFFF> endbfchar endcmap'
					)
				]
			})
		]
	])('%s', async (_, bytes) => expect(await says(bytes)).toMatch(/^Good all the same/));
});

describe('what can’t be signed on is refused, saying what it is', () => {
	it.each<[string, Uint8Array, RegExp]>([
		['a page of no size', onePage({ mediaBox: '/MediaBox [0 0 0 200]' }), /^pdf-page-size: Page 1 measures/],
		[
			'a page as large as a field',
			onePage({ mediaBox: '/MediaBox [0 0 90000 200]' }),
			/^pdf-page-size: Page 1 measures 90000 x/
		]
	])('%s', async (_, bytes, want) => expect(await says(bytes)).toMatch(want));
});
