import { daysBetween } from '../../core/calendar';
import { lengthInWords } from '../../core/pace';
import type { Thread } from '../../core/packet';

/** Whom a packet waits for, in a cell: names, what to know about it, and how urgent that is. */
export function having(thread: Thread, me: string, now: string): { names: string; note: string; tone: string } {
	const have = thread
		.flat()
		.filter((p) => ['notified', 'opened', 'unreachable', 'held'].includes(p.standing) && p.duty !== 'gets a copy');
	if (have.length === 0) return { names: '', note: '', tone: '' };
	const names = have.map((p) => (p.name === me ? 'you' : p.name)).join(', ');
	if (have.some((p) => p.standing === 'held')) return { names, note: 'held', tone: 'text-brick' };
	if (have.some((p) => p.standing === 'unreachable')) return { names, note: 'unreachable', tone: 'text-brick' };
	const days = Math.max(...have.map((p) => (p.since ? daysBetween(p.since, now) : 0)));
	const opened = have.some((p) => p.standing === 'opened') ? ', opened' : '';
	return {
		names,
		note: (days === 0 ? 'since today' : said(days)) + opened,
		tone: days >= 7 ? 'text-copper' : 'text-quiet'
	};
}

/** How long something has been out, against what is usual for its template. */
export function spent(sentAt: string, now: string, usualHours: number | null): string {
	const days = daysBetween(sentAt, now);
	const here = days === 0 ? 'today' : said(days);
	return usualHours === null ? here : `${here}; usually ${lengthInWords(usualHours / 24)}`;
}

/** So many days, as people say it. */
export const said = (days: number) => `${days} ${days === 1 ? 'day' : 'days'}`;
