import { expect, it } from 'vitest';
import { dayIn, daysBetween, deadlineAfter, isOver, isZone } from './index';

it('ends ten days after Tuesday 09:00 in London at the end of Friday of the next week', () => {
	// 24 November 2026 is a Tuesday; London is at UTC then
	expect(deadlineAfter('2026-11-24T09:00:00Z', 10, 'Europe/London')).toBe('2026-12-04T23:59:59.000Z');
});
it.each([
	['summer time begins on the way', '2026-03-27T12:00:00Z', 3, 'Europe/London', '2026-03-30T22:59:59.000Z'],
	['it is already tomorrow in the zone', '2026-06-01T23:30:00Z', 1, 'Europe/Berlin', '2026-06-03T21:59:59.000Z'],
	['31 January and a month', '2026-01-31T10:00:00Z', 31, 'UTC', '2026-03-03T23:59:59.000Z'],
	['west of Greenwich', '2026-07-01T02:00:00Z', 1, 'America/New_York', '2026-07-02T03:59:59.000Z']
])('%s', (_, sent, days, zone, end) => {
	expect(deadlineAfter(sent, days, zone)).toBe(end);
});
it('is over a second after, not at the last moment; without a deadline never', () => {
	expect(isOver('2026-12-04T23:59:59.000Z', '2026-12-04T23:59:59.000Z')).toBe(false);
	expect(isOver('2026-12-04T23:59:59.000Z', '2026-12-05T00:00:00.000Z')).toBe(true);
	expect(isOver(null, '2999-01-01T00:00:00Z')).toBe(false);
});
it('counts whole days, and never fewer than none', () => {
	expect(daysBetween('2026-11-20T10:00:00Z', '2026-11-23T09:00:00Z')).toBe(2);
	expect(daysBetween('2026-11-23T10:00:00Z', '2026-11-20T09:00:00Z')).toBe(0);
});
it('knows zones from what only looks like one', () => {
	expect([isZone('Europe/London'), isZone('Europe/Lonndon'), isZone('')]).toEqual([true, false, false]);
	expect(dayIn('Europe/London', '2026-12-02T23:59:59Z')).toBe('2 December 2026');
});
