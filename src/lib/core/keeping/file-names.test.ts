import { describe, expect, it } from 'vitest';
import type { SentPacket } from '../packet';
import { distinctNames, nameByPattern, safeName } from './index';

const packet = {
	reference: 'P-7K3QM',
	sentAt: '2026-11-02T09:00:00.000Z',
	type: 'Lease',
	folder: 'Halls',
	sender: { name: 'Odile', email: 'o@x.example', organisation: 'X' },
	answers: { f: { text: 'Hall 3' } },
	plan: {
		title: 'Hall hire',
		people: [{ id: 'gwen', name: 'Gwen Hale', role: 'Hirer', email: 'g@x.example', duty: 'signs' }],
		stops: [{ id: 's', people: ['gwen'] }],
		fields: [{ id: 'f', kind: 'text', key: 'hall', person: 'gwen', label: 'Hall', settings: {} }],
		papers: []
	}
} as unknown as SentPacket;
const named = (pattern: string, document = 'Hire agreement') =>
	nameByPattern(pattern, packet, { document, ended: '2026-11-30T10:00:00.000Z', template: 'Hire' });

describe('a file’s name by a pattern', () => {
	it.each([
		['{document} {reference}', 'Hire agreement P-7K3QM'],
		['{date} {title} {person}', '2026-11-30 Hall hire Gwen Hale'],
		['{title} - {hirer.family name} ({hall})', 'Hall hire - Hale (Hall 3)'],
		['{type}/{folder}/{own reference}{template}', 'Lease Halls Hire'],
		// what nobody knows stays as it was written, and what is empty is left out
		['{nothing} {own reference}', '{nothing}']
	])('%s', (pattern, name) => expect(named(pattern)).toBe(name));

	it('never says the same twice in a row', () => {
		expect(named('{document} signed', 'Hire agreement signed')).toBe('Hire agreement signed');
		expect(named('{title} {document}', 'hall hire')).toBe('Hall hire');
		// numbers may be meant
		expect(named('{document}', 'Lot 5 5')).toBe('Lot 5 5');
	});
	it.each([
		['a/b\\c:d*e?f"g<h>i|j', 'a b c d e f g h i j'],
		['..hidden. ', 'hidden'],
		['CON', 'CON -'],
		['lpt1.pdf', 'lpt1.pdf -'],
		['line\nbreak\u202egnp.exe', 'line breakgnp.exe']
	])('is safe on every system: %j', (text, name) => expect(safeName(text)).toBe(name));
	it('is never longer than a file system takes, in letters of three bytes, nor cut within a letter', () => {
		const long = safeName('合'.repeat(300));
		expect(Buffer.byteLength(long)).toBeLessThanOrEqual(180);
		expect(Buffer.byteLength(long)).toBeGreaterThan(140);
		expect(named('{title}'.repeat(1), '')).toBe('Hall hire');
		expect(named('{own reference}', '')).toBe('Document');
	});
	it('gets a number where there is one already, also in other capitals', () => {
		const one = distinctNames();
		expect(['Copy.pdf', 'copy.PDF', 'Copy.pdf', 'Copy'].map(one)).toEqual([
			'Copy.pdf',
			'copy (2).PDF',
			'Copy (3).pdf',
			'Copy'
		]);
	});
});
