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
	shown: ''
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
		expect(signed.words.join(' ')).toContain(`was shown ${'e'.repeat(64)}`);
		expect(plain.words.join(' ')).not.toContain('was shown');
		expect(signed.ink).toBeGreaterThan(plain.ink + 300);
		const drawn = await seen({
			...evidence,
			people: [{ ...person, mark: { draw: 'strokes', strokes: [[0, 0, 500, 90, 1000, 0]], ratio: 0.2 } }]
		});
		expect(drawn.ink).toBeGreaterThan(plain.ink + 150);
	});
	it('has names in every script, and spells what no face has', async () => {
		const { words } = await seen({ ...evidence, people: [{ ...person, name: '山田太郎 𓀀' }] });
		expect(words.join(' ')).toContain('[U+13000]');
	});
});
