import { refuse, type Refusal } from '../../core/refusal';
import { bySize, refusedFor } from '../pool';
import type { Table } from './read';
import type { Added, Plain, Ready } from './write';

export { type Table } from './read';

/** How long a workbook may take. */
const TIME = 60_000;

const HEAVY = refuse(
	'sheet-too-heavy',
	'The sheet takes more time or memory to read than is permitted. Save only the columns that are needed.'
);

/** The table in a file, in a worker; see `readTable`. */
export async function tableInWorker(bytes: Uint8Array, sheet?: string): Promise<Table | Refusal> {
	try {
		return await bySize('readTable', { bytes, sheet }, bytes.length, TIME);
	} catch (error) {
		return refusedFor(error, HEAVY, HEAVY);
	}
}

/** A workbook with columns behind its own, in a worker. Refuses `sheet-too-heavy`. */
export async function addColumnsInWorker(job: Added): Promise<Uint8Array | Refusal> {
	try {
		return await bySize('addColumns', job, job.bytes.length, TIME);
	} catch (error) {
		return refusedFor(error, HEAVY, HEAVY);
	}
}

/** A sheet to be filled in, as a workbook, in a worker. */
export const readyBookInWorker = (job: Ready): Promise<Uint8Array> => bySize('readyBook', job, 0, TIME);

/** Rows as a workbook, in a worker. */
export const plainBookInWorker = (job: Plain): Promise<Uint8Array> => bySize('plainBook', job, 0, TIME);
