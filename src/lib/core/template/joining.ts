import type { Duty, Plan } from '../packet/plan';

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
	people: { id: string; members: Member[]; taken?: number; duty?: Duty }[];
	/** ids of people, stop by stop */
	stops: string[][];
	/** whether a key that stands in several parts is one answer or several; alike ones are one where nothing is said */
	keys: Record<string, 'one' | 'apart'>;
	/** clashes that are to stay as they are */
	accepted: string[];
	/** days to complete, where the parts differ */
	days?: Plan['days'];
}

/** A group's id, which becomes its person's: plain, and different for each part. */
export function groupId({ part, person }: Member): string {
	return `j${part}-${person}`.slice(0, 40);
}
