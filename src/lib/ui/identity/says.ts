import type { CheckName, CheckOutcome, Side, Verdict } from '../../core/identity';

/** Checks and what came of them, as people read them. */
export const CHECK: Record<CheckName, string> = {
	pictures: 'The pictures',
	zone: 'Machine-readable lines',
	digits: 'Their check digits',
	kind: 'Kind of document',
	country: 'Issued by',
	expiry: 'Expires',
	name: 'Name',
	birth: 'Date of birth',
	sides: 'Front and back',
	face: 'Face',
	forgery: 'Forgery'
};

export const OUTCOME: Record<CheckOutcome, { say: string; look: string }> = {
	right: { say: 'holds', look: 'text-moss' },
	wrong: { say: 'does not hold', look: 'text-brick' },
	unsure: { say: 'can’t be told', look: 'text-copper' },
	again: { say: 'not read surely', look: 'text-copper' },
	'not looked at': { say: 'not looked at', look: 'text-quiet' }
};

export const VERDICT: Record<Verdict, string> = {
	right: 'The ID desk found that it holds.',
	wrong: 'The ID desk found that it does not hold.',
	unsure: 'The ID desk can’t judge it for sure.',
	again: 'It was not read surely, and counted as no try.'
};

export const SIDE: Record<Side, string> = { front: 'Front', back: 'Back', holder: 'The person' };
