import { strToU8 } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { docx, relationship } from '../../../../demo/word';
import { ok } from '../../../../e2e/kit/house';
import { takeIn } from '../take-in';
import { wordToPdf } from '../../../../e2e/kit/word';

beforeAll(() => {
	process.env['PELLUM_OFFICE'] = '';
});
afterAll(() => {
	delete process.env['PELLUM_OFFICE'];
});

const W = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';
const RELATIONS = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const run = (text: string) => `<w:r><w:t xml:space="preserve">${text}</w:t></w:r>`;
const paragraph = (inner: string, properties = '') => `<w:p><w:pPr>${properties}</w:pPr>${inner}</w:p>`;
const document = (body: string) => `<?xml version="1.0"?><w:document ${W}><w:body>${body}</w:body></w:document>`;
const relations = (...kinds: [string, string][]) =>
	`<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${kinds.map(([kind, target], i) => `<Relationship Id="r${i}" Type="${RELATIONS}/${kind}" Target="${target}"/>`).join('')}</Relationships>`;
const word = (body: string, more: Record<string, string | Uint8Array> = {}) =>
	docx([], [], { 'word/document.xml': document(body), ...more });

type Wish = Parameters<typeof wordToPdf>[0]['changes'];
async function made(bytes: Uint8Array, changes?: Wish): Promise<{ text: string; notes: string[] }> {
	const written = ok(await wordToPdf({ bytes, ...(changes && { changes }) }));
	const taken = ok(await takeIn(written.pdf));
	return {
		text: taken.words
			.flat()
			.map((one) => one.text)
			.join(' '),
		notes: written.notes
	};
}

describe('lists keep the numbers they have in Word', () => {
	const level = (at: number, format: string, text: string, start = 1) =>
		`<w:lvl w:ilvl="${at}"><w:start w:val="${start}"/><w:numFmt w:val="${format}"/><w:lvlText w:val="${text}"/></w:lvl>`;
	const numbering = `<?xml version="1.0"?><w:numbering ${W}><w:abstractNum w:abstractNumId="0">${level(0, 'decimal', '%1.', 2)}${level(1, 'decimal', '%1.%2')}${level(2, 'lowerLetter', '(%3)')}</w:abstractNum><w:abstractNum w:abstractNumId="1">${level(0, 'upperRoman', '%1')}${level(1, 'thaiLetters', '%2')}</w:abstractNum><w:num w:numId="1"><w:abstractNumId w:val="0"/></w:num><w:num w:numId="2"><w:abstractNumId w:val="0"/><w:lvlOverride w:ilvl="0"><w:startOverride w:val="7"/></w:lvlOverride></w:num><w:num w:numId="3"><w:abstractNumId w:val="1"/></w:num></w:numbering>`;
	const styles = `<?xml version="1.0"?><w:styles ${W}><w:style w:styleId="Clause"><w:pPr><w:numPr><w:numId w:val="3"/></w:numPr></w:pPr></w:style><w:style w:styleId="Sub"><w:basedOn w:val="Clause"/></w:style></w:styles>`;
	const item = (text: string, list: number, at = 0) =>
		paragraph(run(text), `<w:numPr><w:ilvl w:val="${at}"/><w:numId w:val="${list}"/></w:numPr>`);
	const listed = (body: string) =>
		word(body, {
			'word/numbering.xml': numbering,
			'word/styles.xml': styles,
			'word/_rels/document.xml.rels': relations(['numbering', 'numbering.xml'], ['styles', 'styles.xml'])
		});
	it('begun elsewhere than at 1, nested, gone on with after other text, begun anew', async () => {
		const { text, notes } = await made(
			listed(
				item('a', 1) +
					item('b', 1, 1) +
					item('c', 1, 1) +
					item('d', 1, 2) +
					item('e', 1) +
					paragraph(run('between')) +
					item('f', 1) +
					item('g', 1, 1) +
					item('h', 2)
			)
		);
		expect(text).toBe('2. a 2.1 b 2.2 c (a) d 3. e between 4. f 4.1 g 7. h');
		expect(notes).toEqual([]);
	});
	it('by their style, and by a style based on it', async () => {
		const styled = (text: string, style: string) => paragraph(run(text), `<w:pStyle w:val="${style}"/>`);
		expect((await made(listed(styled('a', 'Clause') + styled('b', 'Sub')))).text).toBe('I a II b');
	});
	it('and where a number can’t be told, that is said', async () => {
		const { text, notes } = await made(listed(item('a', 3, 1) + item('b', 9)));
		expect([text, notes]).toEqual(['a b', ['2 paragraphs are without the number it has in Word: “a”, “b”']]);
	});
});

describe('tracked changes', () => {
	const by = 'w:id="1" w:author="Tamsin Okoro"';
	const body =
		paragraph(
			run('The fee is ') +
				`<w:del ${by}><w:r><w:delText>185</w:delText></w:r></w:del><w:ins ${by}>${run('785')}</w:ins>` +
				run(' pounds.') +
				'<w:commentRangeStart w:id="0"/>'
		) +
		paragraph(run('First half,'), `<w:rPr><w:del ${by}/></w:rPr>`) +
		paragraph(run(' second half.')) +
		`<w:tbl><w:tr>${`<w:tc>${paragraph(run('kept'))}</w:tc>`}</w:tr><w:tr><w:trPr><w:ins ${by}/></w:trPr><w:tc>${paragraph(run('added'))}</w:tc></w:tr></w:tbl>` +
		paragraph(`<w:r><w:rPr><w:b/><w:rPrChange ${by}><w:rPr/></w:rPrChange></w:rPr><w:t>bold now</w:t></w:r>`);
	const bytes = word(body, {
		'word/comments.xml': `<?xml version="1.0"?><w:comments ${W}><w:comment w:id="0">${paragraph(run('really?'))}</w:comment></w:comments>`,
		'word/_rels/document.xml.rels': relations(['comments', 'comments.xml'])
	});
	it('are said, with who made them, and nothing is made until somebody chooses', async () => {
		expect(await wordToPdf({ bytes })).toMatchObject({
			code: 'docx-changes',
			say: expect.stringMatching(/5 tracked changes by Tamsin Okoro and 1 comment/)
		});
	});
	it('are accepted', async () => {
		expect(await made(bytes, 'accepted')).toEqual({
			text: 'The fee is 785 pounds. First half, second half. kept added bold now',
			notes: ['5 tracked changes accepted', '1 comment left out']
		});
	});
	it('or taken back', async () => {
		const before = await made(bytes, 'before');
		expect(before.text).toBe('The fee is 185 pounds. First half, second half. kept bold now');
		expect(before.notes[0]).toBe('as it was before 5 tracked changes');
	});
	it('that there are none of are not asked about; a comment is said', async () => {
		const only = word(paragraph(run('plain')), {
			'word/comments.xml': `<?xml version="1.0"?><w:comments ${W}><w:comment w:id="0"/></w:comments>`,
			'word/_rels/document.xml.rels': relations(['comments', 'comments.xml'])
		});
		expect(await made(only)).toEqual({ text: 'plain', notes: ['1 comment left out'] });
	});
});

describe('what an office’s documents have is taken in', () => {
	it('letters of other scripts in faces that have them; one that none has as its code, and said', async () => {
		const { text, notes } = await made(docx(['Łódź Ελλάδα Київ 東京 \u{1F3BB}']));
		expect(text).toBe('Łódź Ελλάδα Київ 東京 [U+1F3BB]');
		expect(notes).toEqual(['1 sign that can’t be shown is written as a code: \u{1F3BB}']);
	});
	it('a header row that comes again on each page', async () => {
		const row = (text: string, head = '') => `<w:tr>${head}<w:tc>${paragraph(run(text))}</w:tc></w:tr>`;
		const table = `<w:tbl>${row('Head', '<w:trPr><w:tblHeader/></w:trPr>')}${row('cell')}</w:tbl>`;
		expect((await made(word(table))).text).toBe('Head cell');
	});
	it('the template it was begun from, which is not fetched', async () => {
		const from = docx(['kept'], [], {
			'word/_rels/settings.xml.rels': relationship('attachedTemplate', 'http://203.0.113.9/letter.dotx')
		});
		expect((await made(from)).text).toBe('kept');
	});
	it('a main part with another name', async () => {
		const bytes = docx([], [], {
			'_rels/.rels': relations(['officeDocument', 'word/document2.xml']),
			'[Content_Types].xml': `<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/word/document2.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>`,
			'word/document2.xml': document(paragraph(run('the other part')))
		});
		expect((await made(bytes)).text).toBe('the other part');
	});
	it('a picture that can’t be read: left out, and said', async () => {
		const drawing = `<w:r><w:drawing><wp:inline xmlns:wp="http://schemas.openxmlformats.org/drawingml/2006/wordprocessingDrawing"><a:graphic xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main"><a:graphicData><pic:pic xmlns:pic="http://schemas.openxmlformats.org/drawingml/2006/picture"><pic:blipFill><a:blip xmlns:r="${RELATIONS}" r:embed="r0"/></pic:blipFill></pic:pic></a:graphicData></a:graphic></wp:inline></w:drawing></w:r>`;
		const bytes = word(paragraph(run('before ') + drawing) + paragraph(run('after')), {
			'word/media/one.png': strToU8('no picture'),
			'word/_rels/document.xml.rels': relations(['image', 'media/one.png'])
		});
		expect(await made(bytes)).toEqual({ text: 'before after', notes: ['1 picture could not be read and left out'] });
	});
	it('right-to-left text, whose order the plain way gets wrong, is said', async () => {
		expect((await made(docx(['השוכר מסכים לשלם']))).notes).toEqual([
			'text that runs from right to left comes out in the wrong order'
		]);
	});
});
