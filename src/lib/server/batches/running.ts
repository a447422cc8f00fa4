import { cutText } from '../../core/clean-text';
import type { Plan } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { broughtBy, targetsOf, whoOf } from '../../core/sheet';
import type { Given } from '../../core/template';
import { accountOf, askedBy, type Account, type AskedBy } from '../accounts';
import { inTransaction, isBusy, isFull } from '../db';
import type { House } from '../house';
import { newId } from '../ids';
import { queue } from '../jobs/outbox';
import { organisation } from '../settings';
import { planForUse, sendUsed } from '../templates';
import { verdictsOf } from './judging';
import { BEGINS, readBatch } from './store';

/** Sending a batch: a job that takes some rows at a time, so that it can be left, paused, and comes back to. */

const AT_A_TIME = 20;
/** So many are written to the disk at once: each alone would wait for it. */
const TOGETHER = 10;
const MINUTE = 60_000;

export interface SendJob extends AskedBy {
	batch: string;
	/** the template as it was when the rows were judged */
	template: string;
	version: number;
	/** counts the parts of a run, so that each is a job of its own */
	part: number;
	run: string;
}

/** What is kept of a row until it goes: as it was shown. */
interface Due {
	who: string;
	given: Given;
	brought: Record<string, string>;
}

/** Starts to send what is ready. Refuses where nothing is, and while it runs already. */
export function runBatch(house: House, account: Account, id: string): { wanted: number } | Refusal {
	return inTransaction(house.db, () => {
		const batch = readBatch(house, id);
		if (isRefusal(batch)) return batch;
		if (batch.going !== 'rests') return refuse('batch-runs', 'It is being sent already.');
		const found = verdictsOf(house, account, batch);
		if (isRefusal(found)) return found;
		const wanted = found.verdicts.filter((verdict) => verdict.is === 'ready').length;
		if (wanted === 0) return refuse('nothing-ready', 'No row is ready to go.');
		// the revision stays until its rows are kept, since with it what was judged is remembered
		house.db
			.prepare(
				`UPDATE batches SET running = 3, wanted = ?, sent = 0, failed = 0, began_at = ?, stopped = '' WHERE id = ?`
			)
			.run(wanted, house.now().toISOString(), id);
		begin(house, account, id, batch.template, found.plan.from?.[0]?.version ?? 0);
		return { wanted };
	});
}

/** Rows are kept so many at a time. */
const KEPT_AT_A_TIME = 1000;

/**
 * Keeps what is ready as it was shown, before the first of it goes: nothing can be settled meanwhile, so what is found here is what was
 * shown. Begun anew after a crash, it comes to the same.
 */
async function keepRows(house: House, account: Account, job: SendJob): Promise<Refusal | null> {
	const batch = readBatch(house, job.batch);
	if (isRefusal(batch)) return batch;
	const found = verdictsOf(house, account, batch);
	if (isRefusal(found)) return found;
	const targets = targetsOf(found.plan, batch.documents);
	const who = whoOf(targets, batch.sheet, batch.setting.mapping);
	const keep = house.db.prepare('UPDATE batch_rows SET given = ?, fault = NULL WHERE batch = ? AND n = ?');
	for (let from = 0; from < found.verdicts.length; from += KEPT_AT_A_TIME) {
		await new Promise((next) => setImmediate(next));
		inTransaction(house.db, () => {
			for (let n = from; n < Math.min(from + KEPT_AT_A_TIME, found.verdicts.length); n++) {
				const verdict = found.verdicts[n]!;
				if (verdict.is !== 'ready') keep.run(null, job.batch, n);
				else {
					const brought = broughtBy(batch.sheet.rows[n]!, targets, batch.setting);
					const due: Due = { who: who[n]!, given: verdict.given, brought };
					keep.run(JSON.stringify(due), job.batch, n);
				}
			}
		});
	}
	return null;
}

function begin(house: House, account: Account, batch: string, template: string, version: number): void {
	queuePart(house, { batch, ...askedBy(account), template, version, part: 0, run: newId(house.now()) });
}

function queuePart(house: House, job: SendJob, dueAt = house.now().toISOString()): void {
	queue(house, 'batch', `batch:${job.batch}:${job.run}:${job.part}`, job, dueAt);
	house.changes.emit('jobs');
}

/** Lets a run rest: the row under way still goes. Refuses where it does not go. */
export function pauseRun(house: House, id: string): Refusal | null {
	const { changes } = house.db
		.prepare(
			`UPDATE batches SET running = CASE running WHEN 3 THEN 4 ELSE 2 END, revision = revision + 1
			 WHERE id = ? AND running IN (1, 3)`
		)
		.run(id);
	if (changes === 0) return refuse('batch-rests', 'It is not being sent at present.');
	house.changes.emit('packet', '');
	return null;
}

/** Goes on where it was paused: with what was shown when it began. */
export function goOn(house: House, account: Account, id: string): Refusal | null {
	return inTransaction(house.db, () => {
		const batch = readBatch(house, id);
		if (isRefusal(batch)) return batch;
		if (batch.going !== 'pauses') return refuse('batch-rests', 'It is not paused.');
		const found = planForUse(house, account, batch.template);
		if (isRefusal(found)) return found;
		house.db
			.prepare(
				'UPDATE batches SET running = CASE running WHEN 4 THEN 3 ELSE 1 END, revision = revision + 1 WHERE id = ?'
			)
			.run(id);
		begin(house, account, id, batch.template, found.plan.from?.[0]?.version ?? 0);
		return null;
	});
}

/** Ends a run before its end, for a reason that is told: what has not gone can be judged and sent again. */
export function stopRun(house: House, { batch }: { batch: string }, why = ''): void {
	inTransaction(house.db, () => {
		house.db
			.prepare('UPDATE batches SET running = 0, stopped = ?, revision = revision + 1 WHERE id = ?')
			.run(why, batch);
		house.db.prepare('UPDATE batch_rows SET given = NULL WHERE batch = ? AND given IS NOT NULL').run(batch);
	});
	house.changes.emit('packet', '');
}

/**
 * Sends the next rows as they were shown, each with its packet noted in one transaction, and asks for the rest to be sent after, no
 * faster than the office wants. A row that is refused keeps the sentence, and the others go.
 */
export async function sendRows(house: House, job: SendJob, done: () => void): Promise<null> {
	const why = hindrance(house, job);
	const account = accountOf(house, job);
	if (why !== null || !account) {
		inTransaction(house.db, () => {
			if (why !== '') stopRun(house, job, why ?? 'Whoever began this has no account here any more.');
			done();
		});
		return null;
	}
	if (isBeginning(house, job.batch)) {
		const no = await keepRows(house, account, job);
		inTransaction(house.db, () => {
			if (no) stopRun(house, job, no.say);
			else if (isBeginning(house, job.batch)) {
				house.db.prepare('UPDATE batches SET running = 1, revision = revision + 1 WHERE id = ?').run(job.batch);
				queuePart(house, { ...job, part: job.part + 1 });
			} else if (isResting(house, job.batch)) stopRun(house, job);
			// where it was paused meanwhile, going on begins anew
			done();
		});
		return null;
	}
	const { pace } = organisation(house.db);
	// hindrance has looked at it: it is what the rows were judged by
	const { plan } = planForUse(house, account, job.template) as { plan: Plan };
	const rows = house.db
		.prepare<[string, number], { n: number; given: string }>(
			'SELECT n, given FROM batch_rows WHERE batch = ? AND given IS NOT NULL ORDER BY n LIMIT ?'
		)
		.all(job.batch, Math.min(AT_A_TIME, pace ?? AT_A_TIME) + 1);
	const now = rows.slice(0, Math.min(AT_A_TIME, pace ?? AT_A_TIME));
	const rest = () => {
		const dueAt = pace ? new Date(house.now().getTime() + (MINUTE * now.length) / pace).toISOString() : undefined;
		if (rows.length > now.length) queuePart(house, { ...job, part: job.part + 1 }, dueAt);
		else
			house.db
				.prepare('UPDATE batches SET running = 0, revision = revision + 1 WHERE id = ? AND running = 1')
				.run(job.batch);
		done();
	};
	for (let at = 0; at < now.length; at += TOGETHER) {
		// others get their turn between a few rows
		await new Promise((next) => setImmediate(next));
		inTransaction(house.db, () => {
			for (const { n, given } of now.slice(at, at + TOGETHER)) {
				const fault = saying(() => sendRow(house, account, job, plan, n, JSON.parse(given) as Due));
				if (fault !== null) setBack(house, job.batch, n, fault);
			}
			// with the last of them, so that the disk is not waited for once more
			if (at + TOGETHER >= now.length) rest();
		});
	}
	if (now.length === 0) inTransaction(house.db, rest);
	house.changes.emit('packet', '');
	return null;
}

const runningOf = (house: House, id: string): number | undefined =>
	house.db.prepare<[string], number>('SELECT running FROM batches WHERE id = ?').pluck().get(id);
const isBeginning = (house: House, id: string): boolean => runningOf(house, id) === BEGINS;
const isResting = (house: House, id: string): boolean => runningOf(house, id) === 0;

/** A row that could not go keeps the reason. */
function setBack(house: House, batch: string, n: number, fault: string): void {
	house.db.prepare('UPDATE batch_rows SET fault = ?, given = NULL WHERE batch = ? AND n = ?').run(fault, batch, n);
	house.db.prepare('UPDATE batches SET failed = failed + 1 WHERE id = ?').run(batch);
}

/** Why no more rows go: a sentence, '' where somebody has paused or stopped it, or null where nothing hinders. */
function hindrance(house: House, job: SendJob): string | null {
	const running = runningOf(house, job.batch);
	if (running !== 1 && running !== BEGINS) return '';
	const account = accountOf(house, job);
	if (!account) return null;
	const found = planForUse(house, account, job.template);
	if (isRefusal(found)) return found.say;
	return found.plan.from?.[0]?.version === job.version
		? null
		: 'The template was changed meanwhile. Look at the rows as they are now, and send the rest.';
}

/** Sends one row; says why it could not be. */
function sendRow(house: House, account: Account, { batch }: SendJob, plan: Plan, n: number, due: Due): string | null {
	return inTransaction(house.db, () => {
		const again = house.db.prepare('SELECT 1 FROM batch_packets WHERE batch = ? AND who = ?').get(batch, due.who);
		if (!again) {
			const sent = sendUsed(house, account, plan, due.given, batch);
			if (isRefusal(sent)) return sent.say;
			house.db
				.prepare('INSERT INTO batch_packets (batch, who, packet, brought) VALUES (?, ?, ?, ?)')
				.run(batch, due.who, sent.packet, JSON.stringify(due.brought));
			house.db.prepare('UPDATE batches SET sent = sent + 1 WHERE id = ?').run(batch);
		}
		house.db.prepare('UPDATE batch_rows SET given = NULL WHERE batch = ? AND n = ?').run(batch, n);
		return null;
	});
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
