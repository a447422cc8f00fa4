import type { Duty, IdentityCheck, Plan } from '../packet/plan';

/** A plan to be joined with others, under the name people know it by. */
export interface Part {
	title: string;
	plan: Plan;
}

/** A person of a part: which part, and their id there. */
export interface Member {
	part: number;
	person: string;
}

/** How parts are to be joined; proposed first, then changed by a person. */
export interface Joining {
	/** who is the same; `taken` is the member whose name and address hold, `duty` what they do */
	people: { id: string; members: Member[]; taken?: number; duty?: Duty; check?: IdentityCheck | null }[];
	/** ids of people, stop by stop */
	stops: string[][];
	/** whether a key that stands in several parts is one answer or several; alike ones are one where nothing is said */
	keys: Record<string, 'one' | 'apart'>;
	/** clashes that are to stay as they are */
	accepted: string[];
	/** days to complete, where the parts differ */
	days?: Plan['days'];
	/** which part's settings of the sending hold where the parts differ; the first one's where nothing is said */
	sending?: number;
	/** how a stop opens where the parts differ about it, by {@link stopName} */
	opens?: Record<string, Opening>;
}

/** When a stop opens, and when it is done. */
export interface Opening {
	/** a rule; '' for always */
	when: string;
	anyOne: boolean;
}

/** A joined stop by who stands there, so that what was settled about it is forgotten when that changes. */
export function stopName(stop: readonly string[]): string {
	return [...stop].sort().join('+');
}

/** A group's id, which becomes its person's: plain, and different for each part. */
export function groupId({ part, person }: Member): string {
	return `j${part}-${person}`.slice(0, 40);
}

/** The joining with somebody at another place: at a stop of their own before stop `to`, or beside those at it. */
export function movedGroup(joining: Joining, id: string, to: number, how: 'beside' | 'before'): Joining {
	const without = joining.stops.map((stop) => stop.filter((one) => one !== id));
	const stops =
		how === 'beside' && without[to]
			? without.map((stop, i) => (i === to ? [...stop, id] : stop))
			: [...without.slice(0, to), [id], ...without.slice(to)];
	return { ...joining, stops: stops.filter((stop) => stop.length > 0) };
}

/** Two people taken as one, at the first one's place; what was settled about either is asked again. */
export function asOne(joining: Joining, id: string, other: string): Joining {
	const group = joining.people.find((g) => g.id === id);
	const second = joining.people.find((g) => g.id === other);
	if (!group || !second || id === other) return joining;
	return {
		...joining,
		people: joining.people.flatMap((g) =>
			g.id === other ? [] : g.id === id ? [{ id, members: [...group.members, ...second.members] }] : [g]
		),
		stops: joining.stops.map((stop) => stop.filter((one) => one !== other)).filter((stop) => stop.length > 0)
	};
}
