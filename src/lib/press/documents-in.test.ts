import { chmodSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { afterAll, afterEach, describe, expect, it } from 'vitest';
import { docx, relationship } from '../../../demo/word';
import { ok } from '../../../e2e/kit/house';
import { pdf } from '../../../e2e/kit/pdfs';
import { takeIn } from './take-in';
import { reorderPages } from './page-order';
import { picturesToPdf } from './pictures';
import { wordToPdf } from '../../../e2e/kit/word';

const folder = mkdtempSync(path.join(tmpdir(), 'pellum-test-'));
const words = (taken: { words: { text: string }[][] }) => taken.words.flat().map((word) => word.text);
process.env['PELLUM_OFFICE'] = '';

afterEach(() => {
	process.env['PELLUM_OFFICE'] = '';
});
afterAll(() => {
	delete process.env['PELLUM_OFFICE'];
	rmSync(folder, { recursive: true });
});

/** A program that stands in for LibreOffice. */
function office(script: string): void {
	const file = path.join(folder, 'soffice');
	writeFileSync(file, `#!/bin/sh\n${script}\n`);
	chmodSync(file, 0o755);
	process.env['PELLUM_OFFICE'] = file;
}

describe('a Word document', () => {
	const letter = docx(
		[
			'Guest engagement',
			[{ text: 'The fee is ' }, { text: 'EUR 240 & more', yellow: true }, { text: ' a night.' }],
			'Signature: ________'
		],
		[
			['Day', 'Place'],
			['Friday', 'Staunton']
		]
	);
	it('becomes a PDF whose words are there, by the plain way where there is no office program', async () => {
		const made = ok(await wordToPdf({ bytes: letter }));
		const text = words(ok(await takeIn(made.pdf)));
		for (const word of ['Guest', 'Staunton', 'Signature:', '________']) expect(text).toContain(word);
		expect([made.by, made.words, made.shaded]).toEqual(['plain', 17, ['EUR 240 & more']]);
	});
	it('is made by LibreOffice where the machine has it, in a folder of its own', async () => {
		const made = path.join(folder, 'made.pdf');
		writeFileSync(made, await pdf(1));
		chmodSync(folder, 0o755);
		office(`case "$*" in *--headless*) cp ${made} in.pdf;; esac`);
		expect(ok(await wordToPdf({ bytes: letter })).by).toBe('office');
	});
	it('goes the plain way where LibreOffice fails', async () => {
		office('exit 1');
		expect(ok(await wordToPdf({ bytes: letter })).by).toBe('plain');
	});
	it('that is a bomb, takes parts from elsewhere, or is none, is refused in a sentence', async () => {
		const bomb = docx(['x'], [], { 'word/media/a.bin': new Uint8Array(205 * 1024 * 1024) });
		expect(bomb.length).toBeLessThan(2_000_000);
		expect(await wordToPdf({ bytes: bomb })).toMatchObject({ code: 'docx-too-heavy' });
		const outside = docx(['x'], [], {
			'word/_rels/document.xml.rels': relationship('image', 'http://203.0.113.9/a.png')
		});
		expect(await wordToPdf({ bytes: outside })).toMatchObject({
			code: 'docx-external',
			say: expect.stringContaining('203.0.113.9')
		});
		const link = docx(['x'], [], {
			'word/_rels/document.xml.rels': relationship('hyperlink', 'http://brindlevale.example')
		});
		expect(ok(await wordToPdf({ bytes: link })).by).toBe('plain');
		for (const bytes of [new Uint8Array([80, 75, 3, 4, 1, 2, 3]), new TextEncoder().encode('Dear all')])
			expect(await wordToPdf({ bytes })).toMatchObject({ code: 'not-a-docx' });
		// making the bomb is what takes long: a machine that does other things meanwhile needs more than half a minute
	});
});

describe('pictures', () => {
	const picture = (width: number, height: number) =>
		sharp({ create: { width, height, channels: 3, background: '#c0c0c0' } })
			.png()
			.toBuffer();
	it('are the pages of one document, each as it lies', async () => {
		const made = ok(await picturesToPdf({ pictures: [await picture(400, 600), await picture(600, 400)] }));
		const taken = ok(await takeIn(made));
		expect(taken.pages.map((page) => page.width < page.height)).toEqual([true, false]);
	});
	it('that are too large, or none, are refused by their number', async () => {
		const large = await picture(20_000, 2_100);
		expect(await picturesToPdf({ pictures: [await picture(10, 10), large] })).toMatchObject({
			code: 'picture-too-large',
			say: expect.stringContaining('Picture 2 has 20000 x 2100')
		});
		expect(await picturesToPdf({ pictures: [new Uint8Array([1, 2, 3])] })).toMatchObject({ code: 'not-a-picture' });
	});
});

describe('pages', () => {
	it('come in another order, turned or left out, with their words', async () => {
		const before = ok(await takeIn(await pdf(3)));
		const made = await reorderPages({
			bytes: before.bytes,
			pages: [
				{ from: 2, turn: 90 },
				{ from: 0, turn: 0 }
			]
		});
		const after = ok(await takeIn(made));
		expect(after.pages.map((page) => page.rotate)).toEqual([90, 0]);
		expect(after.words.map((page) => page.map((w) => w.text).join(' '))).toEqual(
			[2, 0].map((n) => before.words[n]!.map((w) => w.text).join(' '))
		);
	});
});
