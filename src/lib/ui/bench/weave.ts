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
