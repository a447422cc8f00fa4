import { isoDay } from '../../core/calendar';
import { kindOf, live } from '../../core/field';
import type { SentPacket } from '../../core/packet';
import type { House } from '../house';
import { eventAt } from '../packets/log';
import type { KeptIntake } from './store';

/** The sheets of what follows: a row for each case, by the keys that the office has chosen. */

/** Each key's answer as data. */
function valuesOf(house: House, { plan, answers, zone }: SentPacket, keys: string[]): Record<string, string> {
	const now = live(plan, answers, isoDay(zone, house.now().toISOString()));
	return Object.fromEntries(
		keys.map((key) => {
			const field = plan.fields.find((one) => one.key === key && now.shown(one));
			const answer = field && now.answer(field);
			const data = field && answer ? kindOf(field.kind).data(answer) : '';
			return [key, Array.isArray(data) ? data.join(', ') : data];
		})
	);
}

/** Adds a row to the sheet of a follow-up; its number. */
export function addRow(house: House, intake: string, followUp: string, state: SentPacket, keys: string[]): number {
	const cells = { packet: state.reference, ...valuesOf(house, state, keys) };
	const n =
		house.db
			.prepare<[string, string], number>(
				'SELECT coalesce(max(n), 0) + 1 FROM intake_rows WHERE intake = ? AND follow_up = ?'
			)
			.pluck()
			.get(intake, followUp) ?? 1;
	house.db
		.prepare('INSERT INTO intake_rows (intake, follow_up, n, packet, at, cells) VALUES (?, ?, ?, ?, ?, ?)')
		.run(intake, followUp, n, state.packet, house.now().toISOString(), JSON.stringify(cells));
	return n;
}

/** How many rows have followed, by follow-up. */
export function rowCounts(house: House, { id: intake, setting }: KeptIntake): Record<string, number> {
	const last = house.db
		.prepare<[string, string], number | null>('SELECT max(n) FROM intake_rows WHERE intake = ? AND follow_up = ?')
		.pluck();
	return Object.fromEntries(
		setting.then.flatMap(({ id, does }) => (does.is === 'row' ? [[id, last.get(intake, id) ?? 0] as const] : []))
	);
}

/** The rows that have followed, in their order, with the keys that any of them has. */
export function rowsThatFollowed(
	house: House,
	intake: string,
	followUp: string,
	most = 10_000
): { columns: string[]; rows: string[][] } {
	const cells = house.db
		.prepare<[string, string, number], string>(
			'SELECT cells FROM intake_rows WHERE intake = ? AND follow_up = ? ORDER BY n LIMIT ?'
		)
		.pluck()
		.all(intake, followUp, most)
		.map((one) => JSON.parse(one) as Record<string, string>);
	const columns = [...new Set(cells.flatMap((one) => Object.keys(one)))];
	return { columns, rows: cells.map((one) => columns.map((key) => one[key] ?? '')) };
}

/** The row that an event of a packet has put into a sheet; null where it has put none. */
export function rowOfEvent(house: House, packet: string, n: number): Record<string, string> | null {
	const told = eventAt(house.db, packet, n);
	if (told?.type !== 'FollowedUp' || told.what !== 'row') return null;
	const cells = house.db
		.prepare<[string, string], string>(
			'SELECT cells FROM intake_rows INDEXED BY intake_rows_packet WHERE packet = ? AND follow_up = ?'
		)
		.pluck()
		.get(packet, told.id);
	return cells === undefined ? null : (JSON.parse(cells) as Record<string, string>);
}
