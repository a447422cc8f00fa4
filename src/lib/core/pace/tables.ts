import type { Course } from './answers';
import { BAD_ENDS } from './answers';
import type { ComingDay } from './coming';
import type { SideBySide } from './asked';
import { ENDED, lengthInWords, percent } from './words';

/** What each question of Pace is answered with, as a table: read beneath its chart, and taken away as a file. */
export interface Table {
	columns: string[];
	rows: string[][];
}

export const QUESTIONS = ['how long', 'where', 'late', 'badly', 'coming'] as const;
export type Question = (typeof QUESTIONS)[number];

const days = (length: number | null): string => (length === null ? 'not reached' : lengthInWords(length));

/** How many were done after so many days, now and in the weeks before, at each length at which that changed. */
export function howLongTable(now: Course, before: Course): Table {
	const at = [...new Set([...now.done, ...before.done].map((step) => step.days))].sort((a, b) => a - b);
	const share = (course: Course, length: number) => {
		const step = course.done.findLast((one) => one.days <= length);
		return step ? `${percent(step.share)} (${percent(step.low)} to ${percent(step.high)})` : '0 %';
	};
	return {
		columns: ['Within', 'Done', 'Done in the weeks before'],
		rows: at.map((length) => [lengthInWords(length), share(now, length), share(before, length)])
	};
}

const CALLED: Record<SideBySide | 'role', string> = {
	template: 'Template',
	role: 'Role',
	duty: 'What is done',
	delivery: 'How it goes',
	language: 'Language',
	'part of day': 'When it came',
	hour: 'Sent at'
};

export const whereTable = (by: SideBySide | 'role', sorts: readonly { name: string; course: Course }[]): Table => ({
	columns: [CALLED[by], 'How many', 'Ended', 'Half done within', 'At least', 'At most', 'Nine tenths within'],
	rows: sorts.map(({ name, course }) => [
		name,
		String(course.n),
		String(course.over),
		...(course.few
			? ['too few to say', '', '', '']
			: [days(course.half.days), days(course.half.low), days(course.half.high), days(course.nine.days)])
	])
});

export const badlyTable = (now: Course, before: Course): Table => ({
	columns: ['How it ended', 'Share', 'At least', 'At most', 'In the weeks before'],
	rows: BAD_ENDS.map((end) => [
		ENDED[end],
		percent(now.ends[end].share),
		percent(now.ends[end].low),
		percent(now.ends[end].high),
		percent(before.ends[end].share)
	])
});

export const comingTable = (coming: readonly ComingDay[]): Table => ({
	columns: ['Day', 'Likely done'],
	rows: coming.map(({ day, n }) => [day, n.toFixed(1)])
});

/** What is out and has waited unusually long. */
export const lateTable = (
	rows: readonly { title: string; reference: string; names: string; days: number; unusual: number; restsOn: number }[]
): Table => ({
	columns: ['Packet', 'Reference', 'Has it', 'Waits for', 'Longer than', 'Rests on'],
	rows: rows.map(({ title, reference, names, days: waited, unusual, restsOn }) => [
		title,
		reference,
		names,
		lengthInWords(waited),
		percent(unusual),
		String(restsOn)
	])
});
