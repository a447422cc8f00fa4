import { folded } from '../folded';
import type { KnownQuestion } from './asked';

/**
 * What is left of an answer when all is folded that people write in more than one way: case, marks, blanks and signs; of a number,
 * what parts its thousands; of a day, its order. Only that is kept, as a keyed hash.
 * @returns '' where nothing is left, or it is no such thing
 */
export function foldedAnswer(as: KnownQuestion['as'], answer: string): string {
	if (as === 'number') return number(answer);
	if (as === 'date') return day(answer);
	return folded(answer).replaceAll(/[^\p{L}\p{N}]/gu, '');
}

/** `1,234.50`, `1.234,5` and `1234.5` are one number. */
function number(text: string): string {
	const digits = text
		.normalize('NFKC')
		.replaceAll(/[^\d.,\-−]/g, '')
		.replace('−', '-');
	const last = Math.max(digits.lastIndexOf('.'), digits.lastIndexOf(','));
	const signs = digits.replaceAll(/[^.,]/g, '');
	// one sign with three digits after it parts thousands, as do several of the same
	const parts =
		last >= 0 &&
		!(
			(signs.length === 1 && /^-?[1-9]\d{0,2}[.,]\d{3}$/.test(digits)) ||
			(signs.length > 1 && new Set(signs).size === 1)
		);
	const [whole, rest] = parts ? [digits.slice(0, last), digits.slice(last + 1)] : [digits, ''];
	const value = `${whole.replaceAll(/[.,]/g, '')}.${rest}`;
	if (!/^-?\d*\.\d*$/.test(value) || !/\d/.test(value)) return '';
	const [, minus, before, after] = /^(-?)0*(\d*)\.(\d*?)0*$/.exec(value)!;
	return `${minus}${before || '0'}${after ? `.${after}` : ''}`;
}

/** A day is asked with a field for days, which gives ISO 8601. */
function day(text: string): string {
	return /^\d{4}-\d\d-\d\d$/.test(text.trim()) ? text.trim() : '';
}

/** How many answers are right, and whether that is enough. `fits` compares one with what is kept of it. */
export function answersRight(
	{ asks, right }: { asks: readonly KnownQuestion[]; right: number },
	given: Readonly<Record<string, string>>,
	fits: (folded: string, hash: string) => boolean
): { right: number; of: number; enough: boolean } {
	const good = asks.filter(({ id, as, hash }) => {
		const answer = foldedAnswer(as, given[id] ?? '');
		return answer !== '' && fits(answer, hash);
	}).length;
	return { right: good, of: asks.length, enough: good >= right };
}
