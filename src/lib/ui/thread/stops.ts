import { daysBetween } from '../../core/calendar';
import type { Thread, ThreadPerson } from '../../core/packet';

/** How a stop is drawn: solid, ring, hollow, crossed ring, small open diamond, a gap in the line, thin tick. */
export type Node = 'done' | 'here' | 'to come' | 'trouble' | 'by rule' | 'left out' | 'copy';

export interface DrawnStop {
	node: Node;
	people: ThreadPerson[];
	/** days on the one who has it longest; 0 where nobody has it */
	days: number;
	sentence: string;
}

/** Stops as they are drawn and read out. `now` is ISO 8601. */
export function drawn(thread: Thread, now: string): DrawnStop[] {
	return thread.map((people, i) => {
		const node = nodeOf(people);
		const days = Math.max(
			0,
			...people.map((p) => (p.since && (node === 'here' || node === 'trouble') ? daysBetween(p.since, now) : 0))
		);
		return {
			node,
			people,
			days,
			sentence: `Stop ${i + 1} of ${thread.length}: ${people.map((p) => said(p, now)).join('; ')}`
		};
	});
}

/** The line of a stop round the origin, as an SVG path. */
export function shapeOf(node: Node, size: number): string {
	if (node === 'copy') return `M0 ${-size}V${size}`;
	if (node === 'by rule') return `M0 ${-size}L${size} 0 0 ${size} ${-size} 0Z`;
	if (node === 'left out') return 'M-4 4 4-4';
	const ring = `M${-size} 0a${size} ${size} 0 1 0 ${2 * size} 0a${size} ${size} 0 1 0 ${-2 * size} 0Z`;
	return node === 'trouble' ? `${ring}M-3-3 3 3M3-3-3 3` : ring;
}

function nodeOf(people: ThreadPerson[]): Node {
	const acting = people.filter((p) => p.duty !== 'gets a copy');
	if (acting.length === 0) return 'copy';
	if (acting.every((p) => p.standing === 'skipped')) return 'left out';
	if (acting.some((p) => ['unreachable', 'declined', 'held'].includes(p.standing))) return 'trouble';
	if (acting.every((p) => p.standing === 'done' || p.standing === 'skipped')) return 'done';
	if (acting.some((p) => p.standing !== 'waiting')) return 'here';
	return acting.some((p) => p.byRule) ? 'by rule' : 'to come';
}

const DONE: Record<string, string> = {
	signs: 'has signed',
	approves: 'has approved',
	'fills in': 'has filled in',
	hosts: 'has hosted'
};

function said(person: ThreadPerson, now: string): string {
	const who = person.name || 'somebody';
	const days = person.since ? daysBetween(person.since, now) : 0;
	const time = days === 0 ? 'since today' : `for ${days} ${days === 1 ? 'day' : 'days'}`;
	switch (person.standing) {
		case 'done':
			return `${who} ${DONE[person.duty] ?? 'is done'}`;
		case 'declined':
			return `${who} declined`;
		case 'skipped':
			return `${who} is not needed`;
		case 'held':
			return `${who} is held: who they are is in doubt`;
		case 'unreachable':
			return `${who} could not be reached, ${time}`;
		case 'notified':
			return `${who} ${person.duty}, has had it ${time}`;
		case 'opened':
			return `${who} ${person.duty}, has opened it, has had it ${time}`;
		default:
			return person.duty === 'gets a copy'
				? `${who} gets a copy`
				: `${who} ${person.duty}, ${person.byRule ? 'only by a rule' : 'not yet'}`;
	}
}

/** Two letters for a person: of the first and last word of the name. */
export function monogram(name: string): string {
	const words = name.trim().split(/\s+/).filter(Boolean);
	if (words.length === 0) return '?';
	const first = [...words[0]!][0]!;
	const last = words.length > 1 ? [...words[words.length - 1]!][0]! : ([...words[0]!][1] ?? '');
	return (first + last).toLocaleUpperCase();
}
