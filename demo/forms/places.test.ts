import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { FORMS } from './index';
import { ok } from '../../e2e/kit/house';
import { findPlaces } from '../../src/lib/core/page';
import { takeIn } from '../../src/lib/press/take-in';
import { judge } from './judge';
import { OTHERS } from './others/forms';
import { judgeOther, type JudgedOther } from './others/judge';

const doc = readFileSync('docs/found-places.md', 'utf8');

/** Some columns of a form's row in the document. */
const rowOf = (name: string, from: number, to: number) =>
	doc
		.split('\n')
		.find((line) => line.startsWith(`| ${name} `))
		?.split('|')
		.slice(from, to)
		.map((cell) => cell.trim())
		.join(' ');

describe('found places', () => {
	it.each(FORMS)('on “$name” are as docs/found-places.md says', async (form) => {
		const judged = await judge(form);
		const row = [judged.places, judged.right, judged.false.length, judged.kinds].join(' ');
		expect(row).toBe(rowOf(form.name, 3, 7));
		// what was never seen while making it is found nearly as well
		expect(judged.right / judged.places).toBeGreaterThanOrEqual(0.95);
		expect(judged.right / (judged.right + judged.false.length)).toBeGreaterThanOrEqual(0.95);
	});
	it('were judged on eight forms, a third of them kept out', () => {
		expect([FORMS.length, FORMS.filter((f) => !f.tuned).length]).toEqual([8, 3]);
	});
});

describe('found places on forms that other programs have set', () => {
	it.each(OTHERS)('on “$name” are as docs/found-places.md says', async (form) => {
		const judged = await judgeOther(form);
		expect(
			[
				judged.places,
				judged.found,
				judged.false.length,
				judged.kind,
				judged.label,
				`${judged.whose} of ${judged.told}`
			].join(' ')
		).toBe(rowOf(form.name, 4, 10));
	});
	it('where none had been looked at before: nine in ten found, of the right kind, well named, and whose they are', async () => {
		const kept = await Promise.all(OTHERS.filter((form) => !form.tuned).map(judgeOther));
		const sum = (of: (one: JudgedOther) => number) => kept.reduce((all, one) => all + of(one), 0);
		const found = sum((one) => one.found);
		expect(kept.length * 3).toBeGreaterThanOrEqual(OTHERS.length);
		expect(found / sum((one) => one.places)).toBeGreaterThanOrEqual(0.9);
		expect(found / (found + sum((one) => one.false.length))).toBeGreaterThanOrEqual(0.95);
		expect(sum((one) => one.kind) / found).toBeGreaterThanOrEqual(0.9);
		expect(sum((one) => one.label) / found).toBeGreaterThanOrEqual(0.9);
		expect(sum((one) => one.whose) / sum((one) => one.told)).toBeGreaterThanOrEqual(0.9);
	});
	it('hardly ever on what is no form: at most one in ten pages', async () => {
		let [pages, places] = [0, 0];
		for (const name of ['plain-handbook', 'plain-paper', 'plain-slides']) {
			const taken = ok(await takeIn(new Uint8Array(readFileSync(`demo/forms/others/${name}.pdf`))));
			pages += taken.pages.length;
			places += findPlaces(taken, taken.pages).length;
		}
		expect(pages).toBeGreaterThanOrEqual(40);
		expect(places * 10).toBeLessThanOrEqual(pages);
	});
});
