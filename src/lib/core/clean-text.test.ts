import { describe, expect, it } from 'vitest';
import { cleanText, cutText, oneLine } from './clean-text';

describe('text as it may be kept', () => {
	it.each([
		['half of a pair', 'Loan \ud83c', 'Loan \ufffd'],
		['the other half', '\udfbb Loan', '\ufffd Loan'],
		['control characters', 'a\0b\x1bc\x7fd\x9be', 'abcde'],
		['another order', 'Rent \u202e001\u202c and \u2066x\u2069', 'Rent 001 and x'],
		['line breaks of all kinds', 'a\r\nb\rc\u2028d\u2029e\x85f\tg', 'a\nb\nc\nd\ne\nf\tg'],
		['a byte order mark', '\ufeffName', 'Name']
	])('%s', (_, given, want) => expect(cleanText(given)).toBe(want));

	it.each(['Zoë 🎻', 'خانه\u200cها', 'אב\u200f (1)', '👩‍👩‍👧', 'नमस्ते', '🏴󠁧󠁢󠁳󠁣󠁴󠁿'])('keeps %s', (text) =>
		expect(oneLine(text)).toBe(text)
	);

	it('is one line where it must be', () =>
		expect(oneLine('Maren\r\n\r\nSigned by\tOdile')).toBe('Maren Signed by Odile'));

	it.each([
		['🎻🎻🎻', 3, '🎻'],
		['a👩‍👩‍👧', 5, 'a'],
		['Zoe\u0308', 3, 'Zo'],
		['नमस्ते', 3, 'नम'],
		['short', 200, 'short'],
		['x'.repeat(300), 200, 'x'.repeat(200)],
		[`e${'\u0301'.repeat(5000)}`, 200, `e${'\u0301'.repeat(199)}`],
		['x\ud83c', 1, 'x']
	])('is cut between letters: %s at %i', (text, most, want) => expect(cutText(text, most)).toBe(want));
});
