import { describe, expect, it } from 'vitest';
import { evidenceSheet, type Evidence } from './evidence';
import { openPdf } from './pdfium';

const person = {
	name: 'Maren Lindqvist',
	address: 'maren@post.example',
	did: 'signed',
	when: '24 Nov 2026, 09:05',
	from: 'from 203.0.113.9, a phone',
	mark: null,
	shown: '',
	known: ''
};
const evidence: Evidence = {
	title: 'Engagement',
	reference: 'P-7K3QM',
	organisation: 'Brindlevale Touring Orchestra',
	facts: [['Sent by', 'Odile Farrow']],
	people: [person],
	papers: [{ name: 'Letter', pages: 2, digest: 'a'.repeat(64), sealed: 'b'.repeat(64) }],
	attachments: [],
	events: [{ when: '24 Nov 2026, 09:05', what: 'Maren Lindqvist signed.', from: '203.0.113.9' }],
	head: 'c'.repeat(64),
	root: 'd'.repeat(64),
	size: 9
};

async function seen(of: Evidence) {
	const opened = await openPdf(await (await evidenceSheet(of)).save());
	if (typeof opened === 'string') throw new Error(opened);
	const words = opened.words(0).map((w) => w.text);
	const { rgba } = opened.picture(0, 800);
	opened.close();
	let ink = 0;
	for (let i = 0; i < rgba.length; i += 4) if (rgba[i]! < 140) ink += 1;
	return { words, ink };
}

describe('the evidence sheet', () => {
	it('shows each signature as it was given, and the digest of what was shown', async () => {
		const plain = await seen(evidence);
		const signed = await seen({
			...evidence,
			people: [{ ...person, mark: { draw: 'hand', text: 'Maren Lindqvist', hand: 'caveat' }, shown: 'e'.repeat(64) }]
		});
		expect(signed.words.join(' ')).toContain(`Was shown ${'e'.repeat(64)}`);
		expect(plain.words.join(' ')).not.toContain('Was shown');
		expect(signed.ink).toBeGreaterThan(plain.ink + 300);
		const drawn = await seen({
			...evidence,
			people: [{ ...person, mark: { draw: 'strokes', strokes: [[0, 0, 500, 90, 1000, 0]], ratio: 0.2 } }]
		});
		expect(drawn.ink).toBeGreaterThan(plain.ink + 150);
	});
	it('lets no value look like a row, a word or a name of its own, whatever it holds', async () => {
		const forged = 'Maren\n2\t24 Nov 2026, 09:06\u2028Odile Farrow signed.\r\nName Odile\u202e\u2067';
		const hostile = (text: string) => `${text} ${forged} `.repeat(8);
		const opened = await openPdf(
			await (
				await evidenceSheet({
					...evidence,
					title: forged,
					organisation: forged,
					facts: [['Sent by', hostile('a')]],
					people: [{ ...person, name: hostile('b'), address: hostile('c'), did: hostile('d'), from: hostile('e') }],
					papers: [{ ...evidence.papers[0]!, name: hostile('f') }],
					attachments: [{ name: hostile('g'), digest: 'x' }],
					events: [
						{ when: '24 Nov 2026, 09:05', what: hostile('h'), from: hostile('i') },
						{ when: '24 Nov 2026, 09:07', what: 'It was completed.', from: '' }
					]
				})
			).save()
		);
		if (typeof opened === 'string') throw new Error(opened);
		const words = Array.from({ length: opened.pages }, (_, page) => opened.words(page)).flat();
		opened.close();
		/** where words and numbers begin; every value begins further right */
		const own = words.filter((word) => word.x < 70 && word.y < 640 && word.y > 60).map((word) => word.text);
		expect(own.filter((text) => /^\d$/.test(text))).toEqual(['1', '2']);
		for (const text of ['Odile', 'Farrow', 'signed.', 'Maren', '2']) {
			const right = words.filter((word) => word.text === text && word.y < 640);
			expect(right.length).toBeGreaterThan(5);
			if (text !== '2') expect(Math.min(...right.map((word) => word.x))).toBeGreaterThan(190);
		}
	});
	it('has names in every script, and spells what no face has', async () => {
		const { words } = await seen({ ...evidence, people: [{ ...person, name: '山田太郎 𓀀' }] });
		expect(words.join(' ')).toContain('[U+13000]');
	});
});
