import { Type } from '@sinclair/typebox';
import { closed } from '../kind';
import { defineKnown } from './known';

const PARTS = ['full', 'given', 'family'] as const;
type Part = (typeof PARTS)[number];

/** The person's name. Known from the packet, and may be corrected by the person as they want it written. */
export const name = defineKnown({
	kind: 'name',
	name: 'name',
	letter: 'N',
	width: 160,
	settings: Type.Object({ part: Type.Optional(Type.Union(PARTS.map((part) => Type.Literal(part)))) }, closed),
	known: (person, field) => partOf(person.name, (field.settings['part'] as Part | undefined) ?? 'full'),
	sample: 'Maren Lindqvist'
});

/** The last word counts as the family name: a first guess, which the person can put right on the page. */
function partOf(full: string, part: Part): string {
	const words = full.trim().split(/\s+/).filter(Boolean);
	if (part === 'full' || words.length < 2) return words.join(' ');
	return part === 'family' ? words[words.length - 1]! : words.slice(0, -1).join(' ');
}
