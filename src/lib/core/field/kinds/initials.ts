import { refuse } from '../../refusal';
import { defineMark } from '../mark';

export const initials = defineMark(
	{
		kind: 'initials',
		name: 'initials',
		letter: 'I',
		size: { width: 60, height: 28 },
		wrong: refuse('initials-wrong', 'This place takes initials.')
	},
	initialsOf
);

/** The first letter of each part of a name. */
export function initialsOf(name: string): string {
	return name
		.trim()
		.split(/\s+/)
		.map((word) => [...word][0] ?? '')
		.join('');
}
