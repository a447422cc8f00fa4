import { datesIn } from '../intl';
import type { LikelyDates } from '../packet';
import { BAD_ENDS, differs, type Course, type Length } from './answers';
import { comingWithin, NEAR, type ComingDay } from './coming';
import type { CountedClock } from './counting';
import type { Period, SideBySide } from './asked';
import type { CameAfter } from './helps';
import { UNUSUAL } from './likeness';
import type { Bounded } from './survival';
import type { End } from './waits';

/** What Pace says, in sentences: each as sure as its numbers. */

/** A length of time as people say it: by the hour up to two days, then by half a day, then by the day. */
export function lengthInWords(days: number): string {
	if (days < 2) {
		const hours = Math.max(1, Math.round(days * 24));
		return hours === 24 ? '1 day' : `${hours} ${hours === 1 ? 'hour' : 'hours'}`;
	}
	const rounded = days < 14 ? Math.round(days * 2) / 2 : Math.round(days);
	return `${rounded} days`;
}

const DAYS: Record<CountedClock, string> = { all: '', working: ', weekends and holidays not counted' };

const dayInWords = (day: string, withYear: boolean): string =>
	datesIn('en-GB', {
		day: 'numeric',
		month: 'long',
		...(withYear && { year: 'numeric' }),
		timeZone: 'UTC'
	}).format(new Date(day));

/** From its first day to its last one; with the years, where there are two. */
export function periodInWords({ from, to }: Period): string {
	const last = new Date(Date.parse(to) - 86_400_000).toISOString().slice(0, 10);
	const years = from.slice(0, 4) !== last.slice(0, 4);
	return `from ${dayInWords(from, years)} to ${dayInWords(last, years)}`;
}

const packets = (n: number): string => `${n} ${n === 1 ? 'packet' : 'packets'}`;

/** How sure a length is: between which the half would come out, were it all to happen again. */
function sure({ low, high }: Length): string {
	if (low === null) return '';
	return high === null
		? ` (at least ${lengthInWords(low)})`
		: ` (between ${lengthInWords(low)} and ${lengthInWords(high)})`;
}

/** One course in a few words. */
export function courseInWords({ n, over, few, half }: Course): string {
	if (n === 0) return 'not yet reached';
	if (few) return `${over} ended, too few to say`;
	return half.days === null ? 'fewer than half done' : `half within ${lengthInWords(half.days)}`;
}

/** What came after something was done about a part, beside like ones without. */
export function cameAfterInWords({ touched, within, after, without, difference }: CameAfter): string {
	const bounded = (one: Bounded) => `${percent(one.share)} (${percent(one.low)} to ${percent(one.high)})`;
	const chance = difference.low <= 0 && difference.high >= 0 ? ' That can be chance.' : '';
	return `of ${touched} that had one, ${bounded(after)} were done within ${within} days; of those like them without, ${bounded(without)}.${chance}`;
}

/**
 * Between which days something will be done: in half of the cases like it, and in nine of ten. '' where nobody can say.
 * @param day a moment as people call its day
 */
export function likelyInWords(
	{ early, quarter, middle, threeQuarters, late }: LikelyDates,
	day: (at: string) => string
): string {
	if (early === null || quarter === null || middle === null) return '';
	const from = (a: string, b: string | null) =>
		b === null ? `from ${day(a)} on` : day(a) === day(b) ? day(a) : `from ${day(a)} to ${day(b)}`;
	const half = from(quarter, threeQuarters);
	const most = late === null ? 'perhaps much later' : `nine times in ten ${from(early, late)}`;
	return late !== null && from(early, late) === half ? half : `${half}, ${most}`;
}

/** How long packets took. */
export function howLongInWords(now: Course, before: Course, period: Period, clock: CountedClock): string[] {
	const when = periodInWords(period);
	if (now.n === 0) return [`Nothing was sent ${when}.`];
	if (now.few)
		return [
			`${packets(now.n)} ${now.n === 1 ? 'was' : 'were'} sent ${when}, and ${now.over} ${now.over === 1 ? 'has' : 'have'} ended: too few to say how long they take.`
		];
	if (now.half.days === null)
		return [
			`Of ${packets(now.n)} sent ${when} fewer than half are done, so nobody can say how long half of them take.`
		];
	const nine =
		now.nine.days === null ? 'nine tenths are not done yet' : `nine tenths within ${lengthInWords(now.nine.days)}`;
	return [
		`Half of the ${packets(now.n)} sent ${when} were done within ${lengthInWords(now.half.days)}${sure(now.half)}; ${nine}${DAYS[clock]}.`,
		comparedInWords(now, before)
	];
}

function comparedInWords(now: Course, before: Course): string {
	if (before.n === 0) return 'In as many weeks before, nothing was sent.';
	if (before.few || before.half.days === null) return 'In as many weeks before, too few ended to compare.';
	const was = `In as many weeks before it was ${lengthInWords(before.half.days)}`;
	if (before.half.days === now.half.days) return `${was} as well.`;
	const how = now.half.days! < before.half.days ? 'quicker' : 'slower';
	return differs(now.half, before.half) ? `${was}: it has become ${how}.` : `${was}; that can be chance.`;
}

/**
 * Where waits are the longest, of those that stand side by side.
 * @param where `more`: there are others than these
 * @param sent how many packets all of it is of
 */
export function whereInWords(
	{ by, sorts, more }: { by: SideBySide | 'role'; sorts: readonly { name: string; course: Course }[]; more: boolean },
	sent: number
): string[] {
	if (sorts.length === 0)
		return [
			sent > 0 && by === 'template'
				? 'None of it is made from a template that you may use.'
				: 'Nothing to compare here.'
		];
	const sure = sorts.filter(({ course }) => !course.few && course.half.days !== null);
	const others = more ? ` Only ${sorts.length} are here; there are more.` : '';
	const [first] = sure;
	if (!first) return [`Too few have ended to say where they wait.${others}`];
	const rest = sorts.length - sure.length;
	const few =
		rest === 0 ? '' : ` Of ${rest} other${rest === 1 ? '' : 's'} too few have ended, or fewer than half are done.`;
	return [
		`Longest: ${first.name}, half within ${lengthInWords(first.course.half.days!)}.${few}${others}`,
		by === 'template'
			? 'All of it, from sending. Press one for its roles.'
			: by === 'hour'
				? 'All of it, by the hour in which it was sent.'
				: 'Each from its turn until it was done.'
	];
}

/**
 * Who has had something the longest against what is like it.
 * @param first of those that are unusual; undefined where none is
 * @param lookedAt so many and no more were looked at; null: all that are out
 */
export function lateInWords(
	first: { names: string; title: string; unusual: number } | undefined,
	out: number,
	lookedAt: number | null
): string {
	if (out === 0) return 'Nothing is out.';
	const only = lookedAt === null ? '' : ` Only the ${lookedAt} that are the longest of all were looked at.`;
	return first
		? `${first.names || 'Somebody'} has had “${first.title}” for longer than ${percent(first.unusual)} of what is like it.${only}`
		: `Nobody has had something for longer than three of four like it.${only}`;
}

export const ENDED: Record<Exclude<End, 'done'>, string> = {
	declined: 'declined',
	expired: 'out of time',
	withdrawn: 'withdrawn'
};

export const percent = (share: number): string => {
	const of100 = share * 100;
	return of100 > 0 && of100 < 1 ? 'under 1 %' : `${Math.round(of100)} %`;
};

/** What ended otherwise than it should. */
export function badlyInWords(now: Course, before: Course): string[] {
	if (now.n === 0) return [];
	if (now.few)
		return [`${now.over} of ${packets(now.n)} ${now.over === 1 ? 'has' : 'have'} ended: too few to say how they end.`];
	const said = BAD_ENDS.filter((end) => now.ends[end].share > 0).map(
		(end) => `${percent(now.ends[end].share)} ${ENDED[end]}`
	);
	if (said.length === 0) return ['None was declined, withdrawn or ran out of time.'];
	const first = BAD_ENDS.reduce((a, b) => (now.ends[a].share >= now.ends[b].share ? a : b));
	const more =
		!before.few && apart(now.ends[first], before.ends[first])
			? ` In as many weeks before it was ${percent(before.ends[first].share)}.`
			: '';
	return [
		`Of what was sent, ${said.join(', ')}. How sure that is: ${ENDED[first]} from ${percent(now.ends[first].low)} to ${percent(now.ends[first].high)}.${more}`
	];
}

/** Whether the bounds of two shares do not meet. */
const apart = (a: Bounded, b: Bounded): boolean => a.low > b.high || b.low > a.high;

/** What is likely to come, and what it leaves out. */
export function comingInWords(coming: readonly ComingDay[], out: number): string {
	if (out === 0) return 'Nothing is out.';
	const [week, four] = [comingWithin(coming, 7), comingWithin(coming, NEAR)];
	if (four === 0)
		return `${packets(out)} out; too little like ${out === 1 ? 'it' : 'them'} has ended yet to say when ${out === 1 ? 'it is' : 'they are'} done.`;
	const of = `Of ${packets(out)} that ${out === 1 ? 'is' : 'are'} out`;
	const about = (n: number) => (n < 1 ? 'hardly one' : `about ${Math.round(n)}`);
	if (four < 1) return `${of}, hardly one will likely be done within four weeks: nobody can say on which day.`;
	return `${of}, ${about(week)} will likely be done within a week, ${about(four)} within four.`;
}

/** What is said of a wait of which nobody can say when it ends. @param unusual the share of what is like it that was over by now */
export const noDateInWords = (unusual: number): string =>
	unusual >= UNUSUAL ? `longer than ${percent(unusual)} of others` : 'nobody can say when';
