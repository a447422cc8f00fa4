import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { targetsOf, whoOf } from '../../core/sheet';
import { accountById, type Account } from '../accounts';
import { inTransaction } from '../db';
import type { House } from '../house';
import { newId } from '../ids';
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
		queue(house, { batch: id, account: account.id, part: 0, run: newId(house.now()) });
		return { wanted };
	});
}

function queue(house: House, job: BatchJob): void {
	house.db
		.prepare('INSERT OR IGNORE INTO jobs (kind, key, payload, due_at) VALUES (?, ?, ?, ?)')
		.run('batch', `batch:${job.batch}:${job.run}:${job.part}`, JSON.stringify(job), house.now().toISOString());
	house.changes.emit('jobs');
}

/**
 * Sends the next rows, each with its packet noted in one transaction, and asks for the rest to be sent after. A row that is
 * refused keeps the sentence, and the others go.
 */
export function sendRows(house: House, job: BatchJob, done: () => void): null {
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
	for (const { n, given } of open.slice(0, AT_A_TIME)) {
		inTransaction(house.db, () => {
			const sent = sendTemplate(house, account, batch.template, given);
			if (isRefusal(sent)) {
				house.db.prepare('UPDATE batch_rows SET fault = ? WHERE batch = ? AND n = ?').run(sent.say, batch.id, n);
				return;
			}
			house.db
				.prepare('INSERT INTO batch_packets (batch, who, packet) VALUES (?, ?, ?)')
				.run(batch.id, who[n]!, sent.packet);
			house.db.prepare('UPDATE batches SET sent = sent + 1 WHERE id = ?').run(batch.id);
		});
	}
	inTransaction(house.db, () => {
		if (open.length > AT_A_TIME) queue(house, { ...job, part: job.part + 1 });
		else house.db.prepare('UPDATE batches SET running = 0 WHERE id = ?').run(batch.id);
		done();
	});
	house.changes.emit('packet', '');
	return null;
}
