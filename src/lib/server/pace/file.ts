import {
	badlyTable,
	comingTable,
	daysFrom,
	howLongTable,
	lateTable,
	whereTable,
	type PaceAsked,
	type Question,
	type Table
} from '../../core/pace';
import type { Account } from '../accounts';
import { csvForSpreadsheets } from '../csv';
import type { House } from '../house';
import { paceSeen, type PaceSeen } from './asked';

/** Everything that Pace answers, each as a table. */
export function tablesOf(seen: PaceSeen, now: string): Record<Question, Table> {
	const { packets, where, unusual, coming } = seen;
	return {
		'how long': howLongTable(packets.now, packets.before),
		where: whereTable(where.by, where.sorts),
		late: lateTable(unusual.map((row) => ({ ...row, days: daysFrom(row.since, now) }))),
		badly: badlyTable(packets.now, packets.before),
		coming: comingTable(coming)
	};
}

/** One of them as CSV. */
export function paceFile(house: House, account: Account, asked: PaceAsked, question: Question): string {
	const { columns, rows } = tablesOf(paceSeen(house, account, asked), house.now().toISOString())[question];
	return csvForSpreadsheets(columns, rows);
}
