import { cutText } from '../../core/clean-text';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { targetsOf, whoOf } from '../../core/sheet';
import { accountById, type Account } from '../accounts';
import { inTransaction, isBusy, isFull } from '../db';
import type { House } from '../house';
import { newId } from '../ids';
import { queue } from '../jobs/outbox';
import type { Given } from '../../core/template';
import { sendTemplate } from '../templates';
import { readBatch, verdictsOf } from './store';

/** Sending a batch: a job that takes some rows at a time, so that it can be left, and comes back to. */

const AT_A_TIME = 20;

export interface BatchJob {
	batch: string;
	account: string;
	/** counts the parts of a run, so that each is a job of its own */
	part: number;
	run: string;
}

/** Starts to send what is ready. Refuses where nothing is, and while it runs already. */
export function runBatch(house: House, account: Account, id: string): { wanted: number } | Refusal {
	return inTransaction(house.db, () => {
		const batch = readBatch(house, id);
		if (isRefusal(batch)) return batch;
		if (batch.running) return refuse('batch-runs', 'It is being sent already.');
		const found = verdictsOf(house, account, batch);
		if (isRefusal(found)) return found;
		const wanted = found.verdicts.filter((verdict) => verdict.is === 'ready').length;
		if (wanted === 0) return refuse('nothing-ready', 'No row is ready to go.');
		house.db.prepare('UPDATE batches SET running = 1, wanted = ?, sent = 0 WHERE id = ?').run(wanted, id);
		house.db.prepare('UPDATE batch_rows SET fault = NULL WHERE batch = ?').run(id);
		queuePart(house, { batch: id, account: account.id, part: 0, run: newId(house.now()) });
		return { wanted };
	});
}

function queuePart(house: House, job: BatchJob): void {
	queue(house, 'batch', `batch:${job.batch}:${job.run}:${job.part}`, job);
	house.changes.emit('jobs');
}

/** A run that can't go on is over: what has not gone can be sent again. */
export function stopRun(house: House, { batch }: BatchJob): void {
	house.db.prepare('UPDATE batches SET running = 0 WHERE id = ?').run(batch);
}

/**
 * Sends the next rows, each with its packet noted in one transaction, and asks for the rest to be sent after. A row that is
 * refused keeps the sentence, and the others go.
 */
export async function sendRows(house: House, job: BatchJob, done: () => void): Promise<null> {
	const batch = readBatch(house, job.batch);
	const account = accountById(house, job.account);
	const found = isRefusal(batch) || !account ? null : verdictsOf(house, account, batch);
	if (isRefusal(batch) || !account || !found || isRefusal(found)) {
		inTransaction(house.db, () => {
			house.db.prepare('UPDATE batches SET running = 0 WHERE id = ?').run(job.batch);
			done();
		});
		return null;
	}
	const who = whoOf(targetsOf(found.plan), batch.sheet, batch.setting.mapping);
	const open = found.verdicts.flatMap((verdict, n) =>
		verdict.is === 'ready' && batch.faults[n] === undefined ? [{ n, given: verdict.given }] : []
	);
	const sendRow = (n: number, given: Given): string | null =>
		inTransaction(house.db, () => {
			const sent = sendTemplate(house, account, batch.template, given);
			if (isRefusal(sent)) return sent.say;
			house.db
				.prepare('INSERT INTO batch_packets (batch, who, packet) VALUES (?, ?, ?)')
				.run(batch.id, who[n]!, sent.packet);
			house.db.prepare('UPDATE batches SET sent = sent + 1 WHERE id = ?').run(batch.id);
			return null;
		});
	for (const { n, given } of open.slice(0, AT_A_TIME)) {
		// others get their turn between two rows
		await new Promise((next) => setImmediate(next));
		const fault = saying(() => sendRow(n, given));
		if (fault !== null)
			house.db.prepare('UPDATE batch_rows SET fault = ? WHERE batch = ? AND n = ?').run(fault, batch.id, n);
	}
	inTransaction(house.db, () => {
		if (open.length > AT_A_TIME) queuePart(house, { ...job, part: job.part + 1 });
		else house.db.prepare('UPDATE batches SET running = 0 WHERE id = ?').run(batch.id);
		done();
	});
	house.changes.emit('packet', '');
	return null;
}

/** A row that breaks keeps the others from nothing: it is told like one that was refused. */
function saying(send: () => string | null): string | null {
	try {
		return send();
	} catch (error) {
		if (isFull(error) || isBusy(error)) throw error;
		return `It could not be sent: ${cutText(error instanceof Error ? error.message : String(error), 200)}`;
	}
}
