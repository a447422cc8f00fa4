import { EVERYBODY, SENDER, type Plan } from '../../core/packet';

/**
 * People on the Bench are told apart by a weave and an ink, so that it works in grey and for the colour-blind.
 * Eight inks of about equal weight; eight weaves; they pair up differently after the first eight people.
 */
const INKS = ['#14525c', '#4b7a36', '#6b3fa0', '#8a5a12', '#9c2f55', '#2f5aa8', '#5b5f23', '#7a4630'];

const WEAVES: ((ink: string) => string)[] = [
	(ink) => `repeating-linear-gradient(45deg, ${ink} 0 2px, transparent 2px 5px)`,
	(ink) => `linear-gradient(${ink}, ${ink})`,
	(ink) => `radial-gradient(circle at 2px 2px, ${ink} 1.4px, transparent 1.6px) 0 0 / 4px 4px`,
	(ink) => `repeating-linear-gradient(0deg, ${ink} 0 2px, transparent 2px 5px)`,
	(ink) => `repeating-linear-gradient(90deg, ${ink} 0 1.5px, transparent 1.5px 4px)`,
	(ink) =>
		`repeating-linear-gradient(45deg, ${ink} 0 1px, transparent 1px 4px), repeating-linear-gradient(-45deg, ${ink} 0 1px, transparent 1px 4px)`,
	(ink) => `repeating-linear-gradient(-45deg, ${ink} 0 2px, transparent 2px 6px)`,
	(ink) => `repeating-linear-gradient(0deg, ${ink} 0 1px, transparent 1px 3px)`
];

/** CSS `background` of the weave of the person at that place in the plan; a fine grey for nobody (-1). */
export function weave(place: number): string {
	if (place < 0) return 'repeating-linear-gradient(0deg, #8a8f86 0 1px, transparent 1px 2px)';
	const round = Math.floor(place / INKS.length);
	return WEAVES[(place + round) % WEAVES.length]!(INKS[place % INKS.length]!);
}

/** The weave of a field's owner: a person's by their place in the plan, the sender's and everybody's own. */
export function weaveOf(plan: Plan, owner: string | null): string {
	if (owner === SENDER) return 'linear-gradient(#20262b, #20262b)';
	if (owner === EVERYBODY) return 'repeating-linear-gradient(90deg, #5d646a 0 1px, transparent 1px 4px)';
	return weave(plan.people.findIndex((p) => p.id === owner));
}

/** What a field's owner is called on the Bench. */
export function ownerName(plan: Plan, owner: string | null): string {
	if (owner === SENDER) return 'you, before sending';
	if (owner === EVERYBODY) return 'everybody';
	const person = plan.people.find((p) => p.id === owner);
	return person?.name || person?.role || (owner === null ? 'nobody yet' : 'no name yet');
}
