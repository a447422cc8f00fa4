import { strToU8 } from 'fflate';
import { existsSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { docx } from '../../../../demo/word';
import { wordToPdf } from '../../../../e2e/kit/word';
import sharp from 'sharp';
import { closePool, wordInWorker } from '..';

const R = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const P = 'http://schemas.openxmlformats.org/package/2006/relationships';
const W = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';

let heard: string[] = [];
let server: Server;
let address: string;
beforeAll(async () => {
	// a worker has the environment it was begun with: none may be left from another file
	await closePool();
	server = createServer((request, response) => {
		heard.push(request.url ?? '');
		response.end();
	});
	await new Promise<void>((ready) => server.listen(0, '0.0.0.0', ready));
	address = `http://127.0.0.1:${(server.address() as { port: number }).port}`;
});
afterAll(async () => {
	server.close();
	delete process.env['PELLUM_OFFICE'];
	await closePool();
});

const body = (inner: string) =>
	`<?xml version="1.0"?><w:document ${W} xmlns:r="${R}" xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:wp="http://schemas.openxmlformats.org/drawingml/2006/wordprocessingDrawing" xmlns:pic="http://schemas.openxmlformats.org/drawingml/2006/picture" xmlns:v="urn:schemas-microsoft-com:vml" xmlns:o="urn:schemas-microsoft-com:office:office"><w:body>${inner}</w:body></w:document>`;
const picture = (how: string) =>
	`<w:p><w:r><w:drawing><wp:inline><wp:extent cx="900000" cy="900000"/><wp:docPr id="1" name="x"/><a:graphic><a:graphicData uri="http://schemas.openxmlformats.org/drawingml/2006/picture"><pic:pic><pic:nvPicPr><pic:cNvPr id="1" name="x"/><pic:cNvPicPr/></pic:nvPicPr><pic:blipFill><a:blip ${how}="r1"/></pic:blipFill><pic:spPr/></pic:pic></a:graphicData></a:graphic></wp:inline></w:drawing></w:r></w:p>`;
const relations = (kind: string, target: string, mode = ' TargetMode="External"', prefix = '') =>
	`<?xml version="1.0"?><${prefix}Relationships xmlns${prefix ? `:${prefix.slice(0, -1)}` : ''}="${P}"><${prefix}Relationship Id="r1" Type="${kind.includes(':') ? kind : `${R}/${kind}`}" Target="${target}"${mode}/></${prefix}Relationships>`;
const utf16 = (text: string) => {
	const bytes = new Uint8Array(
		Buffer.from(`\ufeff${text.replace('<?xml version="1.0"?>', '<?xml version="1.0" encoding="UTF-16"?>')}`, 'utf16le')
	);
	return bytes;
};
const withRelations = (inner: string, rels: string | Uint8Array, more: Record<string, string | Uint8Array> = {}) =>
	docx([], [], { 'word/document.xml': body(inner), 'word/_rels/document.xml.rels': rels, ...more });
const fieldOf = (...words: string[]) =>
	`<w:p><w:r><w:fldChar w:fldCharType="begin"/></w:r>${words.map((one) => `<w:r><w:instrText xml:space="preserve">${one}</w:instrText></w:r>`).join('')}<w:r><w:fldChar w:fldCharType="end"/></w:r></w:p>`;

/** Each way of making whoever opens a document fetch something, as a function of where from. */
const WAYS: [string, (from: string) => Uint8Array, 'refused' | 'shut off'][] = [
	['a linked picture', (from) => withRelations(picture('r:link'), relations('image', `${from}/a.png`)), 'refused'],
	[
		'a linked picture under a hyperlink',
		(from) => withRelations(picture('r:link'), relations('hyperlink', `${from}/b.png`)),
		'shut off'
	],
	[
		'an embedded picture under a hyperlink',
		(from) => withRelations(picture('r:embed'), relations('hyperlink', `${from}/c.png`)),
		'shut off'
	],
	[
		'relationships in UTF-16',
		(from) => withRelations(picture('r:link'), utf16(relations('image', `${from}/d.png`))),
		'refused'
	],
	[
		'relationships under a prefix',
		(from) => withRelations(picture('r:link'), relations('image', `${from}/e.png`, undefined, 'q:')),
		'refused'
	],
	[
		'an address that says it is within',
		(from) => withRelations(picture('r:embed'), relations('image', `${from}/f.png`, '')),
		'refused'
	],
	[
		'a mode in other letters',
		(from) => withRelations(picture('r:link'), relations('image', `${from}/g.png`, ' TargetMode="external"')),
		'refused'
	],
	[
		'an address in character references',
		(from) => withRelations(picture('r:link'), relations('image', `&#x68;ttp${from.slice(4)}/h.png`, '')),
		'refused'
	],
	[
		'a field',
		(from) => withRelations(fieldOf(`INCLUDEPICTURE "${from}/i.png" \\d`), relations('styles', 'styles.xml', '')),
		'shut off'
	],
	[
		'a field cut in two',
		(from) => withRelations(fieldOf('INCLUDE', `TEXT "${from}/j.docx"`), relations('styles', 'styles.xml', '')),
		'shut off'
	],
	[
		'a simple field',
		(from) =>
			withRelations(
				`<w:p><w:fldSimple w:instr=' INCLUDEPICTURE "${from}/k.png" '/></w:p>`,
				relations('styles', 'styles.xml', '')
			),
		'shut off'
	],
	[
		'a field in character references',
		(from) =>
			withRelations(fieldOf(`&#73;NCLUDE<![CDATA[PICTURE]]> "${from}/o.png"`), relations('styles', 'styles.xml', '')),
		'shut off'
	],
	[
		'an old drawing',
		(from) =>
			withRelations(
				`<w:p><w:r><w:pict><v:shape><v:imagedata src="${from}/l.png"/></v:shape></w:pict></w:r></w:p>`,
				relations('styles', 'styles.xml', '')
			),
		'refused'
	],
	[
		'a page within',
		(from) =>
			withRelations('<w:altChunk r:id="r1"/>', relations('aFChunk', 'chunk.html', ''), {
				'word/chunk.html': `<img src="${from}/m.png">`
			}),
		'refused'
	],
	['its template', (from) => withRelations('<w:p/>', relations('attachedTemplate', `${from}/n.dotx`)), 'shut off']
];

describe.each([
	['by the plain way', ''],
	...(existsSync('/usr/bin/soffice') ? [['by LibreOffice', '/usr/bin/soffice']] : [])
])('a Word document made %s', (_, office) => {
	it.each(WAYS)('fetches nothing: %s', async (_name, make, what) => {
		process.env['PELLUM_OFFICE'] = office!;
		heard = [];
		for (const from of [address, `file://${import.meta.filename}`]) {
			const made = await wordToPdf({ bytes: make(from) });
			expect('refused' in made ? made.code : 'made').toBe(what === 'refused' ? 'docx-external' : 'made');
		}
		expect(heard).toEqual([]);
	});
});

it('pictures of its own, links to press and other words for them are no harm', async () => {
	process.env['PELLUM_OFFICE'] = '';
	const png = new Uint8Array(
		await sharp({ create: { width: 20, height: 20, channels: 3, background: '#888' } })
			.png()
			.toBuffer()
	);
	for (const bytes of [
		withRelations(picture('r:embed'), relations('image', 'media/a.png', ''), { 'word/media/a.png': png }),
		withRelations(picture('r:embed'), utf16(relations('image', 'media/a.png', '')), { 'word/media/a.png': png }),
		withRelations(
			'<w:p><w:r><w:t>We include text and link it to data.</w:t></w:r></w:p>',
			relations('hyperlink', 'https://brindlevale.example')
		)
	])
		expect(await wordToPdf({ bytes })).toHaveProperty('pdf');
});

it.each([
	['a part that says one encoding and is another', { 'word/document.xml': new Uint8Array([0xff, 0xfe, 0x3c]) }],
	['deep within itself', { 'word/document.xml': body('<w:tbl><w:tr><w:tc>'.repeat(20_000)) }],
	['made of two hundred thousand nothings', { 'word/document.xml': strToU8(body('<w:p/>'.repeat(200_000))) }],
	['a field without an end', { 'word/document.xml': body(`<w:instrText${' '.repeat(5_000_000)}`) }],
	[
		'one run of half a million letters',
		{ 'word/document.xml': body(`<w:p><w:r><w:t>${'x'.repeat(500_000)}</w:t></w:r></w:p>`) }
	]
])('hostile markup ends when its time is over: %s', async (_, parts) => {
	process.env['PELLUM_OFFICE'] = '';
	const start = process.cpuUsage();
	// two seconds here, ten where it is not a test
	const made = await wordInWorker(docx(['x'], [], parts), 'ask', {}, 2000);
	expect('refused' in made ? made.say : made.by).toBeTruthy();
	// of a processor's time, since a busy machine has less of it; the rest is this test's own unfolding
	expect(process.cpuUsage(start).user).toBeLessThan(9_000_000);
});
