import { defineKnown } from './known';

export const jobTitle = defineKnown({
	kind: 'job-title',
	name: 'job title',
	letter: 'J',
	width: 160,
	known: (person) => person.jobTitle ?? '',
	sample: 'Hall keeper'
});
