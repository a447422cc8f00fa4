import { refuse } from '../../refusal';
import { defineMark } from '../mark';

export const signature = defineMark(
	{
		kind: 'signature',
		name: 'signature',
		letter: 'S',
		size: { width: 180, height: 40 },
		wrong: refuse('signature-wrong', 'This place takes a signature.')
	},
	(name) => name
);
