import type { Stage } from '../../core/packet';

/** How far somebody of a session has come, as the office reads it. */
export const STAGE: Record<Stage, string> = {
	'not yet': 'not yet asked',
	invited: 'invited',
	'identity shown': 'identity shown',
	'questions answered': 'questions answered',
	waiting: 'waiting in the room',
	'in session': 'in session',
	signed: 'signed',
	approved: 'approved the result',
	sealed: 'sealed',
	'left out': 'left out'
};
