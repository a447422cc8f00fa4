import QRCode from 'qrcode';
import { kindOf, questions } from '../../core/field';
import { isRefusal, type Refusal } from '../../core/refusal';
import { plainBookInWorker } from '../../press';
import type { Account } from '../accounts';
import { csvForSpreadsheets } from '../csv';
import type { House } from '../house';
import { looker, MAY_SEE_PACKET } from '../folders';
import { packetState } from '../packets/act';
import { readIntake } from './store';

/** What leaves an intake as a file. */

export interface Leaving {
	bytes: Uint8Array;
	media: string;
	name: string;
}

/** Rows as CSV (RFC 4180) or as a workbook; nothing of either runs as a formula. */
export async function asFile(title: string, columns: string[], rows: string[][], as: string): Promise<Leaving> {
	if (as === 'xlsx')
		return {
			bytes: await plainBookInWorker({ title, columns, rows }),
			media: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
			name: `${title}.xlsx`
		};
	const text = csvForSpreadsheets(columns, rows);
	return { bytes: new TextEncoder().encode(text), media: 'text/csv; charset=utf-8', name: `${title}.csv` };
}

const MOST = 5000;

/** The answers of all cases that were handed in, a row each, by key; only those whose packet this account may see. */
export async function answersOfCases(
	house: House,
	account: Account,
	id: string,
	as: string
): Promise<Leaving | Refusal> {
	const intake = readIntake(house, id);
	if (isRefusal(intake)) return intake;
	const packets = house.db
		.prepare<Record<string, string | number>, { packet: string; handed: string }>(
			`SELECT p.id AS packet, c.handed_at AS handed FROM cases c INDEXED BY cases_of CROSS JOIN packets p ON p.id = c.packet
			 WHERE c.intake = @intake AND ${MAY_SEE_PACKET} ORDER BY c.begun_at LIMIT @most`
		)
		.all({ intake: id, most: MOST, ...looker(house.db, account) });
	const rows: Record<string, string>[] = [];
	for (const [n, { packet, handed }] of packets.entries()) {
		// others get their turn between a few
		if (n % 20 === 19) await new Promise((next) => setImmediate(next));
		const state = packetState(house.db, packet);
		if (state.status === 'none') continue;
		const row: Record<string, string> = { packet: state.reference, state: state.status, 'handed in': handed };
		for (const question of questions(state.plan.fields)) {
			const field = question.find((one) => state.answers[one.id] !== undefined);
			if (!field || field.key === '') continue;
			const data = kindOf(field.kind).data(state.answers[field.id]!);
			row[field.key] = Array.isArray(data) ? data.join(', ') : data;
		}
		rows.push(row);
	}
	const columns = [...new Set(['packet', 'state', 'handed in', ...rows.flatMap((row) => Object.keys(row))])];
	return asFile(
		intake.setting.heading || 'Cases',
		columns,
		rows.map((row) => columns.map((key) => row[key] ?? '')),
		as
	);
}

/** The QR code of an address (ISO/IEC 18004), which a third of may be hidden or dirty. */
export const codeAsSvg = (address: string): Promise<string> =>
	QRCode.toString(address, { type: 'svg', errorCorrectionLevel: 'H', margin: 2 });
export const codeAsPng = (address: string): Promise<Buffer> =>
	QRCode.toBuffer(address, { errorCorrectionLevel: 'H', margin: 2, width: 960 });
