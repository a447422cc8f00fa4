import { isAddress } from '../../packet/address';
import { refuse } from '../../refusal';
import { defineKnown } from './known';

export const email = defineKnown({
	kind: 'email',
	name: 'e-mail',
	letter: 'E',
	width: 180,
	known: (person) => person.email,
	check: (text) => (isAddress(text.trim()) ? null : refuse('email-bad', 'That can’t be an e-mail address.')),
	sample: 'maren@post.example'
});
