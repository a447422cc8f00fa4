import Papa from 'papaparse';
import { isRefusal, type Refusal } from '../../core/refusal';
import type { Verdict } from '../../core/sheet';
import type { Account } from '../accounts';
import type { House } from '../house';
import { harmlessCell } from '../packets/data';
import { readBatch, verdictsOf } from './store';

/** How the rows of a batch stand: in words, and as the sheet that goes back. */

/** How a row stands, in words. */
export function saidOfRow(verdict: Verdict, fault: string | undefined, status: string | undefined): string {
	if (fault !== undefined) return fault;
	switch (verdict.is) {
		case 'ready':
			return verdict.own ? 'ready; this is you' : 'ready';
		case 'left out':
			return { filter: 'left out by the filter', 'by hand': 'taken out', another: 'another row is meant' }[verdict.why];
		case 'faulty':
			return verdict.say;
		case 'twice':
			return `the same address as row ${verdict.rows.map((n) => n + 2).join(' and ')}: which is meant?`;
		case 'gone':
			return status ?? 'sent';
	}
}

/** The sheet back as CSV, each row with how it stands and the address of its packet. */
export function sheetBack(house: House, account: Account, id: string): string | Refusal {
	const batch = readBatch(house, id);
	if (isRefusal(batch)) return batch;
	const found = verdictsOf(house, account, batch);
	if (isRefusal(found)) return found;
	const statuses = statusesOf(house, id);
	const rows = batch.sheet.rows.map((cells, n) => {
		const verdict = found.verdicts[n]!;
		const packet = verdict.is === 'gone' ? verdict.packet : '';
		return [
			...cells,
			saidOfRow(verdict, batch.faults[n], statuses.get(packet)),
			packet && `${house.config.origin}/packets/${packet}`
		].map(harmlessCell);
	});
	return `${Papa.unparse({ fields: [...batch.sheet.columns, 'Pellum: state', 'Pellum: packet'].map(harmlessCell), data: rows }, { newline: '\r\n' })}\r\n`;
}

/** How the packets of a batch stand, by their id. */
export function statusesOf(house: House, id: string): Map<string, string> {
	const rows = house.db
		.prepare<[string], { packet: string; status: string }>(
			'SELECT b.packet, p.status FROM batch_packets b JOIN packets p ON p.id = b.packet WHERE b.batch = ?'
		)
		.all(id);
	return new Map(rows.map(({ packet, status }) => [packet, status]));
}
