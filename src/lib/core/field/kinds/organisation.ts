import { defineKnown } from './known';

export const organisation = defineKnown({
	kind: 'organisation',
	name: 'organisation',
	letter: 'O',
	width: 180,
	known: (person) => person.organisation ?? '',
	sample: 'Staunton Parish Council'
});
