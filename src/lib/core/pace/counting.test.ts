import { describe, expect, it } from 'vitest';
import { BAD_ENDS, courseOf, differs } from './answers';
import { usualTime, usualTimeInWords } from './answering';
import { EVERYTHING, paceAskedIn, paceQuery, periodsOf } from './asked';
import type { LikelyDates } from '../packet';
import { mondayOf } from './counting';
import { amongValue, ANY, waysToAsk, type Among } from './facets';
import { countedAs, daysFrom, stepBegins } from './lengths';
import { badlyTable, comingTable, howLongTable, lateTable, whereTable } from './tables';
import type { End, Wait } from './waits';
import {
	badlyInWords,
	comingInWords,
	howLongInWords,
	lateInWords,
	lengthInWords,
	likelyInWords,
	noDateInWords,
	percent,
	periodInWords,
	whereInWords
} from './words';
import { eachDay } from './coming';
import { hourOf, partOfDay } from './working';

const done = (...days: number[]): Wait[] => days.map((one) => ({ days: one, end: 'done' }));
const open = (...days: number[]): Wait[] => days.map((one) => ({ days: one, end: null }));
const ended = (end: End, ...days: number[]): Wait[] => days.map((one) => ({ days: one, end }));
const HOUR = 1 / 24;

describe('a length as it is counted', () => {
	it.each([
		['nothing', 0, 0],
		['a minute', 1 / 1440, 0.0417],
		['an hour to the second', HOUR, 0.0417],
		['an hour and a minute', HOUR + 1 / 1440, 0.0833],
		['a day', 1, 1],
		['a day and a minute', 1 + 1 / 1440, 1.125],
		['four days', 4, 4],
		['five and a third', 5.34, 5.5],
		['two weeks', 14, 14],
		['twenty days and a bit', 20.2, 21],
		['two months', 60.5, 67],
		['three years', 1095, 1121],
		['a clock that was set back', -3, 0]
	])('%s', (_, days, as) => {
		expect(countedAs(days)).toBe(as);
	});
	it('lies between where its step begins and its end', () => {
		for (let days = 0.01; days < 400; days += 0.37) expect(stepBegins(countedAs(days))).toBeLessThan(days);
		expect([0, 1, 1.125, 14, 14.5, 61, 365].map(stepBegins)).toEqual([0, 0.9583, 1, 13.5, 14.5, 61, 361]);
	});
	it('is never shorter than it was, and never longer by more than a step', () => {
		for (let days = 0; days < 400; days += 0.37) {
			expect(countedAs(days)).toBeGreaterThanOrEqual(days - 1e-4);
			expect(countedAs(days) - days).toBeLessThanOrEqual(days < 1 ? 0.042 : days < 14 ? 0.5 : 28);
			expect(countedAs(countedAs(days))).toBe(countedAs(days));
		}
		expect(countedAs(NaN)).toBeNaN();
		expect(daysFrom('2026-11-24T09:00:00Z', '2026-11-23T09:00:00Z')).toBe(0);
	});
});

describe('when something came in', () => {
	const days = { zone: 'Europe/London', holidays: new Set(['2026-12-25']) };
	it.each([
		['a Monday at nine', '2026-11-30T09:00:00Z', 'morning'],
		['at half past eleven', '2026-11-30T11:30:00Z', 'morning'],
		['after lunch', '2026-11-30T14:00:00Z', 'afternoon'],
		['in the evening', '2026-11-30T19:00:00Z', 'off hours'],
		['at six in summer, which is seven there', '2026-07-06T06:00:00Z', 'morning'],
		['on a Saturday', '2026-11-28T10:00:00Z', 'off hours'],
		['on a holiday', '2026-12-25T10:00:00Z', 'off hours']
	])('%s', (_, at, part) => {
		expect(partOfDay(at, days)).toBe(part);
	});
	it('hours are the office’s', () => {
		expect(['2026-11-30T09:59:00Z', '2026-07-06T23:30:00Z'].map((at) => hourOf(at, days))).toEqual(['09', '00']);
	});
	it('weeks begin on Mondays', () => {
		expect(['2026-11-29T23:59:00Z', '2026-11-30T00:00:00Z', '2027-01-03T12:00:00Z'].map(mondayOf)).toEqual([
			'2026-11-23',
			'2026-11-30',
			'2026-12-28'
		]);
	});
});

describe('what is asked', () => {
	it('stands in the address and is read from it; whatever is not known is as for everything', () => {
		const filter = { template: 'a b', type: 'Loan/hire', sender: 'odile', folder: '' };
		const asked = { filter, weeks: 52, clock: 'working', by: 'duty' } as const;
		expect(paceAskedIn(new URLSearchParams(paceQuery(asked)))).toEqual(asked);
		expect(paceAskedIn(new URLSearchParams('by=part of day')).by).toBe('part of day');
		expect(paceQuery(EVERYTHING)).toBe('');
		expect(paceAskedIn(new URLSearchParams('weeks=7&days=none&how=declined&from=2026-01-01&nonsense=1'))).toEqual(
			EVERYTHING
		);
	});
	it('is counted in every way in which it can be asked, and what is written alike is not taken for the same', () => {
		const ways = (among: Partial<Among>) => waysToAsk({ ...ANY, ...among }).map(amongValue);
		expect(ways({})).toEqual(['//']);
		expect(ways({ template: 't', sender: 's' })).toEqual(['//', '/s/', 't//', 't/s/']);
		expect(ways({ template: 't', type: 'y', sender: 's' }).toSorted()).toEqual(
			['//', '/s/', '//y', '/s/y', 't//', 't/s/', 't//y', 't/s/y'].toSorted()
		);
		expect(amongValue({ ...ANY, type: 'a/b' })).not.toBe(amongValue({ ...ANY, sender: 'a', type: 'b' }));
	});
	it('compares whole weeks with as many before them', () => {
		expect(periodsOf(4, '2026-11-30T14:00:00Z')).toEqual({
			now: { from: '2026-11-02', to: '2026-11-30' },
			before: { from: '2026-10-05', to: '2026-11-02' }
		});
		expect(periodInWords({ from: '2026-11-02', to: '2026-11-30' })).toBe('from 2 November to 29 November');
		expect(periodInWords({ from: '2025-12-01', to: '2026-11-30' })).toBe('from 1 December 2025 to 29 November 2026');
	});
});

describe('what is said', () => {
	const ten = courseOf(done(1, 2, 2, 3, 3, 3, 4, 5, 6, 9));
	const none = courseOf([]);
	const period = { from: '2026-11-02', to: '2026-11-30' };

	it.each([
		[1 / 48, '1 hour'],
		[0.5, '12 hours'],
		[1, '1 day'],
		[1.5, '36 hours'],
		[2.3, '2.5 days'],
		[13.8, '14 days'],
		[40.4, '40 days']
	])('%d days are %s', (days, words) => {
		expect(lengthInWords(days)).toBe(words);
	});
	it.each([
		[0, '0 %'],
		[0.004, 'under 1 %'],
		[0.125, '13 %'],
		[1, '100 %']
	])('a share of %d is %s', (share, words) => {
		expect(percent(share)).toBe(words);
	});
	it('of how long: nothing, too few, fewer than half, and all with how sure it is', () => {
		expect(howLongInWords(none, none, period, 'all')).toEqual(['Nothing was sent from 2 November to 29 November.']);
		expect(howLongInWords(courseOf([...done(1), ...open(4)]), none, period, 'all')[0]).toBe(
			'2 packets were sent from 2 November to 29 November, and 1 has ended: too few to say how long they take.'
		);
		const slow = courseOf([
			...done(...Array.from({ length: 8 }, () => 1)),
			...open(...Array.from({ length: 20 }, () => 9))
		]);
		expect(howLongInWords(slow, none, period, 'all')[0]).toMatch(/^Of 28 packets .* fewer than half are done/);
		expect(howLongInWords(ten, none, period, 'working')).toEqual([
			'Half of the 10 packets sent from 2 November to 29 November were done within 3 days (between 2 days and 9 days); nine tenths within 6 days, weekends and holidays not counted.',
			'In as many weeks before, nothing was sent.'
		]);
	});
	it('of a change: chance where the bounds meet, and more where they do not', () => {
		const many = (days: number) => courseOf(done(...Array.from({ length: 60 }, (_, i) => days + (i % 3) / 10)));
		const said = (before: typeof ten) => howLongInWords(ten, before, period, 'all')[1];
		expect(said(courseOf(done(1, 2, 3, 4, 4, 4, 5, 6, 7, 8)))).toMatch(/4 days; that can be chance\.$/);
		expect(said(many(20))).toMatch(/20 days: it has become quicker\.$/);
		expect(differs(many(2).half, many(20).half)).toBe(true);
		expect(differs(ten.half, none.half)).toBe(false);
		expect(said(courseOf(done(1, 2)))).toBe('In as many weeks before, too few ended to compare.');
	});
	it('of bad ends, each beside the others and none as if it were still to come', () => {
		const mixed = courseOf([
			...done(1, 2, 3, 4, 5, 6),
			...ended('declined', 2, 3),
			...ended('expired', 21),
			...open(2)
		]);
		expect(mixed.done.at(-1)!.share + BAD_ENDS.reduce((sum, end) => sum + mixed.ends[end].share, 0)).toBeCloseTo(1, 10);
		expect(badlyInWords(mixed, none)[0]).toMatch(
			/^Of what was sent, 2\d % declined, 1\d % out of time\. How sure that is: declined from \d+ % to \d+ %\./
		);
		expect(badlyInWords(ten, none)).toEqual(['None was declined, withdrawn or ran out of time.']);
		expect(badlyInWords(courseOf(ended('declined', 1)), none)[0]).toMatch(/too few to say how they end/);
		expect(badlyInWords(none, none)).toEqual([]);
	});
	it('of where they wait: what is longest, what can’t be said, and that there are more', () => {
		const two = [
			{ name: 'Loan', course: ten },
			{ name: 'Hire', course: courseOf(done(1)) }
		];
		expect(whereInWords({ by: 'template', sorts: two, more: true }, 11)).toEqual([
			'Longest: Loan, half within 3 days. Of 1 other too few have ended, or fewer than half are done. Only 2 are here; there are more.',
			'All of it, from sending. Press one for its roles.'
		]);
		const said = (by: 'template' | 'role' | 'hour', sorts: typeof two, sent = 1) =>
			whereInWords({ by, sorts, more: false }, sent).at(-1);
		expect(said('hour', two)).toBe('All of it, by the hour in which it was sent.');
		expect(said('role', two)).toBe('Each from its turn until it was done.');
		expect(said('role', two.slice(1))).toBe('Too few have ended to say where they wait.');
		expect(said('template', [])).toBe('None of it is made from a template that you may use.');
		expect(said('template', [], 0)).toBe('Nothing to compare here.');
	});
	it('of who is late, and of how many were looked at', () => {
		const first = { names: 'Kit', title: 'Loan', unusual: 0.87 };
		expect(lateInWords(first, 3, null)).toBe('Kit has had “Loan” for longer than 87 % of what is like it.');
		expect(lateInWords(undefined, 3, 500)).toBe(
			'Nobody has had something for longer than three of four like it. Only the 500 that are the longest of all were looked at.'
		);
		expect(lateInWords(undefined, 0, null)).toBe('Nothing is out.');
	});
	it('of what is coming', () => {
		const coming = Array.from({ length: 14 }, (_, i) => ({ day: `2026-12-${String(i + 1).padStart(2, '0')}`, n: 0.5 }));
		expect(comingInWords(coming, 9)).toBe(
			'Of 9 packets that are out, about 4 will likely be done within a week, about 7 within four.'
		);
		expect(comingInWords([], 2)).toMatch(/^2 packets out; too little like them has ended/);
		const rare = eachDay('2026-12-01', [{ day: '2026-12-03', n: 0.3 }]);
		expect(rare).toHaveLength(28);
		expect(rare.slice(1, 3)).toEqual([
			{ day: '2026-12-02', n: 0 },
			{ day: '2026-12-03', n: 0.3 }
		]);
		expect(comingInWords(rare, 2)).toMatch(
			/^Of 2 packets that are out, hardly one will likely be done within four weeks/
		);
		const later = eachDay('2026-12-01', [{ day: '2026-12-20', n: 2.2 }]);
		expect(comingInWords(later, 3)).toMatch(/hardly one will likely be done within a week, about 2 within four/);
		expect(noDateInWords(0.938)).toBe('longer than 94 % of others');
		expect(noDateInWords(0.4)).toBe('nobody can say when');
		expect(comingInWords([], 0)).toBe('Nothing is out.');
	});
	it('of days to come: half of the cases and nine of ten, and never more than is known', () => {
		const of = (...days: (number | null)[]) => {
			const [early, quarter, middle, threeQuarters, late] = days.map((n) => (n === null ? null : `2026-12-${n}`));
			return likelyInWords({ early, quarter, middle, threeQuarters, late } as LikelyDates, (at) => at.slice(8));
		};
		expect(of(11, 12, 13, 15, 21)).toBe('from 12 to 15, nine times in ten from 11 to 21');
		expect(of(12, 12, 12, 12, 12)).toBe('12');
		expect(of(12, 12, 12, 12, 14)).toBe('12, nine times in ten from 12 to 14');
		expect(of(11, 12, 13, 15, null)).toBe('from 12 to 15, perhaps much later');
		expect(of(11, 12, 13, null, null)).toBe('from 12 on, perhaps much later');
		expect(of(11, 12, null, null, null)).toBe('');
	});
	it('also stands in tables', () => {
		expect(howLongTable(ten, none).rows[0]).toEqual(['1 day', '10 % (under 1 % to 36 %)', '0 %']);
		expect(whereTable('role', [{ name: 'Borrower', course: courseOf(done(1)) }]).rows).toEqual([
			['Borrower', '1', '1', 'too few to say', '', '', '']
		]);
		expect(whereTable('template', [{ name: 'Loan', course: ten }]).rows[0]!.slice(3, 4)).toEqual(['3 days']);
		expect(badlyTable(ten, none).rows.map(([end]) => end)).toEqual(['declined', 'out of time', 'withdrawn']);
		expect(comingTable([{ day: '2026-12-01', n: 0.26 }]).rows).toEqual([['2026-12-01', '0.3']]);
		expect(
			lateTable([{ title: 'T', reference: 'P-1', names: 'Kit', days: 9, unusual: 0.934, restsOn: 31 }]).rows
		).toEqual([['T', 'P-1', 'Kit', '9 days', '93 %', '31']]);
	});
});

describe('when somebody usually answers', () => {
	const zone = 'Europe/London';
	it('is said where at least half of five or more came on one day of the week', () => {
		const at = [
			'2026-11-02T09:10:00Z',
			'2026-11-09T09:40:00Z',
			'2026-11-16T08:20:00Z',
			'2026-11-18T15:00:00Z',
			'2026-11-20T11:00:00Z'
		];
		expect(usualTime(at, zone)).toEqual({ weekday: 1, hour: 9, times: 3, of: 5 });
		expect(usualTimeInWords(usualTime(at, zone)!)).toBe('Mondays about 9 (3 of 5 times)');
	});
	it('is not said of few, nor of those who answer on any day', () => {
		expect(usualTime(['2026-11-02T09:10:00Z'], zone)).toBeNull();
		expect(
			usualTime(
				[2, 3, 4, 5, 6].map((day) => `2026-11-0${day}T09:00:00Z`),
				zone
			)
		).toBeNull();
	});
	it('goes by the office’s own clock', () => {
		const at = Array.from({ length: 5 }, (_, i) => `2026-11-0${i < 4 ? 1 : 2}T23:30:00Z`);
		expect(usualTime(at, 'Asia/Tokyo')).toMatchObject({ weekday: 1, hour: 8 });
	});
});
