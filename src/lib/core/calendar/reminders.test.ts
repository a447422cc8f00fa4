import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isRefusal } from '../refusal';
import { calendarOf, daysOf } from '../icalendar';
import { deadlineAfter, isWorkingDay, nextReminder, termEnd } from './index';

const LONDON = 'Europe/London';
const base = {
	since: '2026-11-24T09:00:00Z',
	opened: null as string | null,
	sent: [] as string[],
	rule: { after: 3, every: 2, most: 3 } as { after: number; every: number | null; most: number },
	deadline: '2026-12-04T23:59:59.000Z' as string | null,
	zone: LONDON
};

describe('reminders', () => {
	it.each([
		['the first after so many days, at nine where the office is', {}, '2026-11-27T09:00:00.000Z'],
		['then every so many', { sent: ['2026-11-27T09:00:00.000Z'] }, '2026-11-29T09:00:00.000Z'],
		['no more than are allowed', { sent: Array(3).fill('2026-11-27T09:00:00.000Z') }, null],
		['one only', { rule: { after: 3, every: null, most: 9 }, sent: ['2026-11-27T09:00:00.000Z'] }, null],
		['none after the end', { deadline: '2026-11-26T23:59:59Z' }, null],
		['nine by the clock of another zone', { zone: 'Asia/Tokyo' }, '2026-11-27T00:00:00.000Z']
	] as [string, Partial<typeof base>, string | null][])('%s', (_, more, at) =>
		expect(nextReminder({ ...base, ...more })).toBe(at)
	);
	it('none within a day after it was opened', () => {
		const at = nextReminder({ ...base, opened: '2026-11-27T08:00:00Z' })!;
		expect(Date.parse(at) - Date.parse('2026-11-27T08:00:00Z')).toBeGreaterThanOrEqual(24 * 3_600_000);
	});
	it('never come before they are due, twice at one time, or after the end', () => {
		fc.assert(
			fc.property(fc.integer({ min: 1, max: 20 }), fc.integer({ min: 1, max: 9 }), (after, every) => {
				const sent: string[] = [];
				for (;;) {
					const at = nextReminder({ ...base, sent, rule: { after, every, most: 20 } });
					if (at === null) break;
					expect(at > (sent.at(-1) ?? base.since)).toBe(true);
					expect(at <= base.deadline!).toBe(true);
					sent.push(at);
				}
				expect(sent.length).toBeLessThanOrEqual(20);
			})
		);
	});
});

describe('days', () => {
	it('ten days from a Tuesday end with the Friday of the next week', () => {
		expect(deadlineAfter('2026-11-24T09:00:00Z', 10, LONDON)).toBe('2026-12-04T23:59:59.000Z');
	});
	it('working days leave out weekends and holidays', () => {
		expect(deadlineAfter('2026-12-23T09:00:00Z', 3, LONDON, ['2026-12-25', '2026-12-28'])).toBe(
			'2026-12-30T23:59:59.000Z'
		);
		expect(isWorkingDay('2026-12-26', new Set())).toBe(false);
	});
	it('a term of a month from the last of January ends with February', () => {
		expect(termEnd('2027-01-31T10:00:00Z', 1, LONDON) <= '2027-02-28').toBe(true);
		expect(termEnd('2026-11-24T10:00:00Z', 12, LONDON)).toMatch(/^2027-11-2[34]$/);
	});
});

const file = (events: string) => `BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//x//EN\r\n${events}END:VCALENDAR\r\n`;
const event = (lines: string) => `BEGIN:VEVENT\r\nUID:1\r\n${lines}\r\nEND:VEVENT\r\n`;

describe('a calendar file', () => {
	it('gives its whole days, also those of an event over several, and of one that comes every year', () => {
		const text = file(
			event('DTSTART;VALUE=DATE:20261225\r\nDTEND;VALUE=DATE:20261227\r\nSUMMARY:Christmas') +
				event('DTSTART;VALUE=DATE:20200101\r\nRRULE:FREQ=YEARLY\r\nSUMMARY:New Year')
		);
		expect(daysOf(text, 2026, 2027)).toEqual([
			{ day: '2026-01-01', name: 'New Year' },
			{ day: '2026-12-25', name: 'Christmas' },
			{ day: '2026-12-26', name: 'Christmas' },
			{ day: '2027-01-01', name: 'New Year' }
		]);
	});
	it.each([
		['something else', 'hello', 'not-a-calendar'],
		['nothing in these years', file(event('DTSTART;VALUE=DATE:19990101\r\nSUMMARY:x')), 'no-days'],
		['an event that is broken', file(event('DTSTART;VALUE=DATE:notaday\r\nSUMMARY:x')), null],
		['one that repeats every second', file(event('DTSTART:20260101T000000Z\r\nRRULE:FREQ=SECONDLY\r\nSUMMARY:x')), null]
	])('%s is answered, and hangs nobody', (_, text, code) => {
		const got = daysOf(text, 2026, 2036);
		if (code) expect(isRefusal(got) && got.code).toBe(code);
		else expect(isRefusal(got) || got.length < 5000).toBe(true);
	});
	it('comes back as it went, with whatever stands in the names', () => {
		const entries = [
			{ id: 'a', day: '2026-12-04', name: 'Last day: “A, b; c\\d”', text: 'two\nlines', link: 'http://127.0.0.1/x' }
		];
		const text = calendarOf(entries, '2026-11-24T09:00:00Z');
		expect(text.split('\r\n').every((line) => new TextEncoder().encode(line).length <= 76)).toBe(true);
		expect(daysOf(text, 2026, 2026)).toEqual([{ day: '2026-12-04', name: 'Last day: “A, b; c\\d”' }]);
	});
});
