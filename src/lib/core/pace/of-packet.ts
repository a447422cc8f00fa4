import { isOpen, type Recorded, type SentPacket, type Standing } from '../packet';
import { acts, stopOf } from '../route';
import type { DeliveryWay, Duty, PlanPerson } from '../packet/plan';
import type { End } from './waits';

/** Something that was waited for in a packet: all of it, one stop, or one person's part. */
export interface Waited {
	of: 'packet' | 'stop' | 'part';
	/** of the stop or the person, in the plan; '' for the packet */
	id: string;
	/** of a part: what it is compared by besides */
	duty?: Duty;
	deliver?: DeliveryWay;
	locale?: string;
	/** ISO 8601 in UTC: since when, when it was first opened, until when; null: it has not been, it is still open */
	from: string;
	opened: string | null;
	to: string | null;
	/** of a part: what was done about it meanwhile */
	touched?: Touches;
	/** null where it is open, or where something else made it needless: it was waited for until then, and that is all that is known */
	end: End | null;
}

/** When something was done about a part, ISO 8601; null: it was not. */
export interface Touches {
	/** a reminder, by itself or by somebody of the office: the first, and the last */
	reminder: string | null;
	lastReminder: string | null;
	/** a letter that the last day is near */
	ending: string | null;
	/** a text message that it is their turn */
	text: string | null;
}

/**
 * What has been waited for in a packet, from how it stands and what is recorded of it. A part that a rule left out was never waited for; one that another of the
 * group did counts as open until then.
 */
export function waitedIn(state: SentPacket, events: readonly Recorded[]): Waited[] {
	const parts = state.plan.people.flatMap((person) => partOf(state, person, events) ?? []);
	const stops = state.plan.stops.flatMap((stop) => {
		const mine = parts.filter(({ id }) => stop.people.includes(id));
		return mine.length > 0 ? [stopOfParts(stop.id, stop.anyOne === true, mine)] : [];
	});
	const over = isOpen(state) ? null : state.at;
	const whole: Waited = {
		of: 'packet',
		id: '',
		from: state.sentAt,
		opened: parts.flatMap(({ opened }) => opened ?? []).sort()[0] ?? null,
		to: over,
		end: isOpen(state) ? null : state.status === 'completed' ? 'done' : state.status
	};
	return [whole, ...stops, ...parts];
}

function partOf(
	state: SentPacket,
	{ id, duty, deliver, locale }: PlanPerson,
	events: readonly Recorded[]
): Waited | null {
	const standing = state.people[id];
	if (!standing || !acts(duty) || stopOf(state.plan, id) < 0) return null;
	if (standing.is === 'waiting' || standing.is === 'copied') return null;
	if (standing.is === 'skipped' && standing.why === 'rule') return null;
	return {
		of: 'part',
		id,
		duty,
		deliver: deliver ?? 'mail',
		...(locale && { locale }),
		from: standing.since,
		...since(events, id, standing.since),
		...endOf(state, standing)
	};
}

/** What happened to somebody's part since it was their turn. */
function since(events: readonly Recorded[], id: string, from: string): Pick<Waited, 'opened'> & { touched: Touches } {
	const theirs = events.filter((event) => event.at >= from && concerns(event, id));
	const first = (fits: (event: Recorded) => boolean) => theirs.find(fits)?.at ?? null;
	const isReminder = ({ type }: Recorded) => type === 'Reminded' || type === 'Nudged';
	return {
		opened: first(({ type }) => type === 'PaperOpened'),
		touched: {
			reminder: first(isReminder),
			lastReminder: theirs.findLast(isReminder)?.at ?? null,
			ending: first(({ type }) => type === 'DeadlineNear'),
			text: first((event) => event.type === 'MessageSent' && event.channel === 'text' && event.purpose === 'your turn')
		}
	};
}

const concerns = (event: Recorded, id: string): boolean =>
	event.type === 'DeadlineNear' ? event.people.includes(id) : 'person' in event && event.person === id;

function endOf(
	state: SentPacket,
	standing: Exclude<Standing, { is: 'waiting' | 'copied' }>
): Pick<Waited, 'to' | 'end'> {
	if (standing.is === 'done' || standing.is === 'declined') return { to: standing.at, end: standing.is };
	if (standing.is === 'skipped') return { to: standing.at, end: null };
	if (isOpen(state)) return { to: null, end: null };
	// somebody else declined: this part ended with the packet, not by itself
	if (state.status === 'expired' || state.status === 'withdrawn') return { to: state.at, end: state.status };
	return { to: state.at, end: null };
}

/** A stop is over when the last of its parts is, or the first where one of them is enough. */
function stopOfParts(id: string, anyOne: boolean, parts: Waited[]): Waited {
	const from = parts.map((part) => part.from).sort()[0]!;
	const opened = parts.flatMap((part) => part.opened ?? []).sort()[0] ?? null;
	const done = parts.filter((part) => part.end === 'done').sort((a, b) => (a.to! < b.to! ? -1 : 1));
	const base = { of: 'stop', id, from, opened } as const;
	if (anyOne && done[0]) return { ...base, to: done[0].to, end: 'done' };
	if (done.length === parts.length) return { ...base, to: done.at(-1)!.to, end: 'done' };
	const open = parts.find((part) => part.to === null);
	if (open) return { ...base, to: null, end: null };
	const last = parts.filter((part) => part.end !== 'done').sort((a, b) => (a.to! < b.to! ? 1 : -1));
	return { ...base, to: last[0]!.to, end: last.find((part) => part.end !== null)?.end ?? null };
}
