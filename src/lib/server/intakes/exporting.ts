import QRCode from 'qrcode';
import { isRefusal, type Refusal } from '../../core/refusal';
import type { Account } from '../accounts';
import type { House } from '../house';
import { looker, MAY_SEE_PACKET } from '../folders';
import { asFile, type Leaving } from '../leaving';
import { packetState } from '../packets/act';
import { answersByKey } from '../packets/data';
import { readIntake } from './store';

/** What leaves an intake as a file. */

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
		rows.push({ packet: state.reference, state: state.status, 'handed in': handed, ...answersByKey(state) });
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
