import { refuse, type Refusal } from '../../core/refusal';
import { accountOf, askedBy, type Account, type AskedBy } from '../accounts';
import { inTransaction } from '../db';
import type { House } from '../house';
import { newId } from '../ids';
import { queue } from '../jobs/outbox';
import { nudgeAll, withdraw } from '../packets/office';
import { standingOf } from './lines';

/** What is done with the packets of a batch that are still out: a job that takes some at a time. */

const AT_A_TIME = 50;

export interface DeedJob extends AskedBy {
	batch: string;
	deed: 'remind' | 'withdraw';
	reason: string;
	/** whose packet was the last; '' at first */
	after: string;
	run: string;
}

/** How many had theirs at the end of each day, from the first that went on. */
export function comingIn(house: House, id: string): { day: string; sent: number; have: number }[] {
	const packets = house.db
		.prepare<[string], { sent: string; ended: string | null; status: string }>(
			`SELECT p.sent_at AS sent, p.ended_at AS ended, p.status FROM batch_packets b JOIN packets p ON p.id = b.packet
			 WHERE b.batch = ?`
		)
		.all(id);
	const days = new Map<string, { sent: number; have: number }>();
	const on = (moment: string) => {
		const day = moment.slice(0, 10);
		const here = days.get(day) ?? { sent: 0, have: 0 };
		days.set(day, here);
		return here;
	};
	for (const { sent, ended, status } of packets) {
		on(sent).sent += 1;
		if (ended !== null && status === 'completed') on(ended).have += 1;
	}
	let [sent, have] = [0, 0];
	return [...days]
		.sort(([a], [b]) => (a < b ? -1 : 1))
		.map(([day, here]) => ({ day, sent: (sent += here.sent), have: (have += here.have) }));
}

/** Reminds all who haven't, or withdraws what is left; each packet for itself, in its own record. Refuses where nothing is out. */
export function forAllOut(
	house: House,
	account: Account,
	id: string,
	deed: DeedJob['deed'],
	reason = ''
): { asked: number } | Refusal {
	const { out } = standingOf(house, id);
	if (out === 0) return refuse('nothing-out', 'Nothing of this batch is out.');
	if (deed === 'withdraw' && reason.trim() === '')
		return refuse('reason-missing', 'Say why: those who have had it are told.');
	queuePart(house, {
		batch: id,
		...askedBy(account),
		deed,
		reason,
		after: '',
		run: newId(house.now())
	});
	return { asked: out };
}

function queuePart(house: House, job: DeedJob): void {
	queue(house, 'batch', `batch:${job.batch}:${job.run}:${job.after}`, job);
	house.changes.emit('jobs');
}

/** The next packets. One that refuses (reminded less than an hour ago, ended meanwhile) keeps the others from nothing. */
export async function doNext(house: House, job: DeedJob, done: () => void): Promise<null> {
	const account = accountOf(house, job);
	const next = account
		? house.db
				.prepare<[string, string, number], { who: string; packet: string }>(
					`SELECT b.who, b.packet FROM batch_packets b JOIN packets p ON p.id = b.packet
					 WHERE b.batch = ? AND b.who > ? AND p.ended_at IS NULL ORDER BY b.who LIMIT ?`
				)
				.all(job.batch, job.after, AT_A_TIME)
		: [];
	for (const { packet } of next) {
		await new Promise((turn) => setImmediate(turn));
		if (job.deed === 'remind') nudgeAll(house, account!, packet);
		else withdraw(house, account!, packet, job.reason);
	}
	inTransaction(house.db, () => {
		if (next.length === AT_A_TIME) queuePart(house, { ...job, after: next.at(-1)!.who });
		done();
	});
	house.changes.emit('packet', '');
	return null;
}
