import type { Recorded, SentPacket } from '../packet';
import { countedAs, daysFrom } from './lengths';
import { waitedIn, type Waited } from './of-packet';
import type { End } from './waits';
import { hourOf, partOfDay, workingDaysIn, type OfficeDays } from './working';

/** 'packet': all of it; 'part': somebody's, since it was their turn; 'opened' and 'reminded': since that happened. */
export const PHASES = ['packet', 'part', 'opened', 'reminded'] as const;
export type Phase = (typeof PHASES)[number];

/** All days, or only those on which the office works. */
export const CLOCKS = ['all', 'working'] as const;
export type CountedClock = (typeof CLOCKS)[number];

/** A wait as it is counted. What does not concern it is ''; moments are ISO 8601. */
export interface CountedWait {
	of: Phase;
	/** whose part it is, by their place in the plan, which is that in its template; '' where it is the whole packet */
	person: string;
	template: string;
	/** of the template; '' where it is made from none */
	version: string;
	type: string;
	sender: string;
	folder: string;
	duty: string;
	delivery: string;
	language: string;
	partOfDay: string;
	/** of the office's day, '09', in which it began */
	hour: string;
	began: string;
	/** null: it is still open, and so are the four below */
	overAt: string | null;
	/** as lengths are counted, see `countedAs` */
	days: number | null;
	working: number | null;
	/** 'left open': something else made it needless */
	how: End | 'left open' | null;
	/** when it was first reminded, warned of its last day, told by a text message; null: it was not */
	reminded: string | null;
	warned: string | null;
	texted: string | null;
}

/**
 * All that is waited for in one packet, as it is counted: the same from the same events, whenever it is reckoned.
 * @param sender the account whose packet it is
 */
export function countedIn(
	state: SentPacket,
	events: readonly Recorded[],
	sender: string,
	days: OfficeDays
): CountedWait[] {
	const from = state.plan.from?.[0];
	return waitedIn(state, events)
		.filter(({ of }) => of !== 'stop')
		.flatMap((wait) =>
			phasesOf(wait).map(({ of, from: began }): CountedWait => ({
				of,
				person: wait.id,
				template: from?.template ?? '',
				version: from ? String(from.version) : '',
				type: state.type,
				sender,
				folder: state.folder,
				duty: wait.duty ?? '',
				delivery: wait.deliver ?? '',
				language: wait.locale ?? '',
				partOfDay: partOfDay(began, days),
				hour: hourOf(began, days),
				began,
				...overOf(wait, began, days),
				reminded: wait.touched?.reminder ?? null,
				warned: wait.touched?.ending ?? null,
				texted: wait.touched?.text ?? null
			}))
		);
}

/** A part is waited for three times over: since it came, since it was opened, since the last reminder. */
function phasesOf({ of, from, opened, touched }: Waited): { of: Phase; from: string }[] {
	if (of === 'packet') return [{ of, from }];
	const reminded = touched?.lastReminder ?? null;
	return [
		{ of: 'part', from },
		...(opened ? [{ of: 'opened' as const, from: opened }] : []),
		...(reminded ? [{ of: 'reminded' as const, from: reminded }] : [])
	];
}

function overOf({ to, end }: Waited, from: string, days: OfficeDays) {
	if (to === null) return { overAt: null, days: null, working: null, how: null };
	return {
		overAt: to,
		days: countedAs(daysFrom(from, to)),
		working: countedAs(workingDaysIn(from, to, days)),
		how: end ?? ('left open' as const)
	};
}

/** The Monday (ISO 8601) of the week that a moment lies in, by UTC. */
export function mondayOf(at: string): string {
	const day = new Date(`${at.slice(0, 10)}T00:00:00Z`);
	day.setUTCDate(day.getUTCDate() - ((day.getUTCDay() + 6) % 7));
	return day.toISOString().slice(0, 10);
}
