import type { Answers } from '../field';
import type { Plan, Recorded } from '../packet';
import type { OpenPacket } from '../packet/state';
import { isoDay } from '../calendar';
import { acts, willOpen } from '../route';
import { daysFrom } from './lengths';
import type { Phase } from './counting';
import { amongValue, ANY, stopAtValue, stopValue, type Facet } from './facets';
import type { StopAhead } from './forecast';
import { expected, type Alike, type Curve } from './likeness';
import { waitedIn, type Waited } from './of-packet';
import { partOfDay, type OfficeDays } from './working';

/** Looks up how waits of one kind end. */
export type Curves = (of: Phase, facet: Facet, value: string) => Curve;

/** A stop that is not over, with its place in the route, from 0. */
export interface PlacedStop extends StopAhead {
	place: number;
	/** the share of waits like it that were over by now, of the part that has waited the most unusually; 0 where it is still to come */
	unusual: number;
}

/** What is known of how waits end. */
export interface Known {
	curves: Curves;
	days: OfficeDays;
	/** how often the stop of that place opened where it could have */
	opens: (template: string, person: string) => number;
}

/**
 * The stops of a packet that are not over, from how it stands, each part with waits like it: at this place of this template and this part
 * of the day, at this place, in the whole office. What happened last to a part is what it is waited for since: it was reminded, it was
 * opened, it came.
 */
export function stopsAhead(state: OpenPacket, events: readonly Recorded[], now: string, known: Known): PlacedStop[] {
	const waits = new Map(
		waitedIn(state, events).flatMap((wait) => (wait.of === 'part' ? [[wait.id, wait] as const] : []))
	);
	const { plan, stop, answers, zone } = state;
	return ahead({ plan, stop, open: true, answers, zone, now, known }, (id, i) => {
		const wait = i === 0 ? waits.get(id) : undefined;
		if (wait) return wait.to === null ? wait : null;
		return i === 0 ? null : 'to come';
	});
}

/** The stops of a plan that would be sent now. */
export const stopsOf = (plan: Plan, now: string, known: Known): PlacedStop[] =>
	ahead(
		{ plan, stop: 0, open: false, answers: plan.answers ?? {}, zone: known.days.zone, now, known },
		() => 'to come'
	);

interface Asked {
	plan: Plan;
	/** the first that is not over, and whether it has opened */
	stop: number;
	open: boolean;
	answers: Answers;
	zone: string;
	now: string;
	known: Known;
}

/** @param since what is known of a part that is waited for; null: it is over, or not waited for */
function ahead(
	{ plan, stop, open, answers, zone, now, known: { curves, days, opens } }: Asked,
	since: (id: string, i: number) => Waited | 'to come' | null
): PlacedStop[] {
	const template = plan.from?.[0]?.template ?? '';
	/** waits of that phase like one of this place that began then, the narrowest kind first */
	const like = (of: Phase, person: string, from: string, waited: number): Alike[] => {
		const places: [Facet, string][] = template
			? [
					['stop at', stopAtValue(template, person, partOfDay(from, days))],
					['stop', stopValue(person, { ...ANY, template })]
				]
			: [];
		return [...places, ['among', amongValue(ANY)] as [Facet, string]].map(([facet, value]) => ({
			curve: curves(of, facet, value),
			waited,
			own: facet !== 'among'
		}));
	};
	return plan.stops.slice(stop).flatMap(({ people, anyOne }, i) => {
		const actors = plan.people.filter((one) => people.includes(one.id) && acts(one.duty));
		let unusual = 0;
		const parts = actors.flatMap(({ id }): Alike[][] => {
			const wait = since(id, i);
			if (wait === null) return [];
			if (wait === 'to come') return [like('part', id, now, 0)];
			const part = like('part', id, wait.from, daysFrom(wait.from, now));
			unusual = Math.max(unusual, expected(part).overBy);
			const last = lastOf(wait);
			// where nothing like it was left open so long after that, what is known of its whole wait is all there is
			return [last ? [...like(last.of, id, last.from, daysFrom(last.from, now)), ...part] : part];
		});
		if (parts.length === 0) return [];
		// what follows may hang on an answer that nobody has given yet
		const will = i === 0 && open ? true : willOpen(plan, stop + i, stop - 1, answers, isoDay(zone, now));
		if (will === false) return [];
		const opened = will ? 1 : opens(template, actors[0]!.id);
		return [{ place: stop + i, parts, unusual, opens: opened, ...(anyOne && { anyOne: true }) }];
	});
}

/** What happened last to a part since it came; null where nothing did. */
function lastOf({ opened, touched }: Waited): { of: Phase; from: string } | null {
	const reminded = touched?.lastReminder ?? null;
	if (reminded && (!opened || reminded > opened)) return { of: 'reminded', from: reminded };
	return opened ? { of: 'opened', from: opened } : null;
}
