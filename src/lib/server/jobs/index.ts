import pino from 'pino';
import { sendRows, type BatchJob } from '../batches';
import type { House } from '../house';
import { act } from '../packets/act';
import { sendScheduled } from '../packets/schedule';
import { readScans, type ReadingJob } from '../papers';
import { sendMessage, type MessageJob } from './messages';
import { sealPacket } from './sealing';

interface JobRow {
	id: number;
	kind: string;
	key: string;
	payload: string;
	attempts: number;
}

/** A job that could not be done yet, for the Desk. */
export interface FailingJob {
	kind: string;
	attempts: number;
	error: string;
	dueAt: string;
}

const log = pino({ name: 'jobs', level: process.env['PELLUM_LOG'] ?? 'warn' });
/** Kinds of job that take long, which must not keep the others waiting: how many of them run side by side. */
const SLOW = { kinds: ['read'], sideBySide: 1 };
const SIDE_BY_SIDE = 2;

/**
 * Does what the outbox asks for: each job at least once, again with growing pauses when it fails, never given up
 * silently. One runner a database.
 */
export class JobRunner {
	private running = new Map<number, 'slow' | 'usual'>();
	private timer: NodeJS.Timeout | null = null;
	private stopped = false;
	private waiting: (() => void)[] = [];

	constructor(private house: House) {}

	start(): void {
		this.house.changes.on('jobs', this.wake);
		this.timer = setInterval(this.wake, 1000);
		this.wake();
	}

	/** Resolves when nothing is being done any more. */
	async stop(): Promise<void> {
		this.stopped = true;
		this.house.changes.off('jobs', this.wake);
		if (this.timer) clearInterval(this.timer);
		if (this.running.size > 0) await new Promise<void>((resolve) => this.waiting.push(resolve));
	}

	/** Does everything that is due now, one after the other; for scripts and tests. */
	async drain(): Promise<void> {
		this.keepTime();
		for (const lane of ['usual', 'slow'] as const)
			for (let job = this.next(lane); job; job = this.next(lane)) await this.run(job, lane);
	}

	private wake = (): void => {
		setImmediate(() => {
			if (this.stopped || !this.house.db.open) return;
			try {
				this.keepTime();
				for (const [lane, most] of [
					['usual', SIDE_BY_SIDE],
					['slow', SLOW.sideBySide]
				] as const) {
					const busy = () => [...this.running.values()].filter((one) => one === lane).length;
					for (let job = this.next(lane); job && busy() < most; job = this.next(lane)) void this.run(job, lane);
				}
			} catch (error) {
				// a full or read-only disk: said in the log, tried again at the next tick
				log.error(error, 'the outbox can’t be read or written');
			}
		});
	};

	private next(lane: 'slow' | 'usual'): JobRow | undefined {
		return this.house.db
			.prepare<[string, string, string, number], JobRow>(
				`SELECT id, kind, key, payload, attempts FROM jobs WHERE done_at IS NULL AND due_at <= ?
				 AND id NOT IN (SELECT value FROM json_each(?))
				 AND (kind IN (SELECT value FROM json_each(?))) = ? ORDER BY due_at, id LIMIT 1`
			)
			.get(
				this.house.now().toISOString(),
				JSON.stringify([...this.running.keys()]),
				JSON.stringify(SLOW.kinds),
				lane === 'slow' ? 1 : 0
			);
	}

	private async run(job: JobRow, lane: 'slow' | 'usual'): Promise<void> {
		this.running.set(job.id, lane);
		let why: string | null;
		try {
			why = await this.perform(job);
		} catch (error) {
			why = error instanceof Error ? error.message : String(error);
			log.error(error, `job ${job.key} failed`);
		}
		try {
			if (why !== null && !this.isDone(job.id)) this.putOff(job, why);
		} catch (error) {
			log.error(error, `job ${job.key} could not be put off`);
		}
		this.running.delete(job.id);
		if (this.running.size === 0) this.waiting.splice(0).forEach((resolve) => resolve());
		if (why === null) this.wake();
	}

	private perform(job: JobRow): Promise<string | null> {
		const payload = JSON.parse(job.payload) as MessageJob;
		const done = () => {
			this.house.db
				.prepare('UPDATE jobs SET done_at = ?, error = NULL WHERE id = ?')
				.run(this.house.now().toISOString(), job.id);
		};
		if (job.kind === 'read') return readScans(this.house, JSON.parse(job.payload) as ReadingJob, done);
		if (job.kind === 'batch') return Promise.resolve(sendRows(this.house, JSON.parse(job.payload) as BatchJob, done));
		return job.kind === 'seal'
			? sealPacket(this.house, payload.packet, done)
			: sendMessage(this.house, job.key, payload, done);
	}

	private isDone(id: number): boolean {
		return this.house.db.prepare('SELECT 1 FROM jobs WHERE id = ? AND done_at IS NOT NULL').get(id) !== undefined;
	}

	/** 5 s, 10 s, 20 s … at most an hour. */
	private putOff(job: JobRow, why: string): void {
		const pause = Math.min(3_600_000, 5000 * 2 ** job.attempts);
		this.house.db
			.prepare('UPDATE jobs SET attempts = attempts + 1, error = ?, due_at = ? WHERE id = ?')
			.run(why.slice(0, 500), new Date(this.house.now().getTime() + pause).toISOString(), job.id);
		this.house.changes.emit('packet', '');
	}

	/** What time has brought: reminders, warnings, ends, and drafts that go by themselves. */
	private keepTime(): void {
		const now = this.house.now().toISOString();
		const due = this.house.db
			.prepare<[string], { id: string }>('SELECT id FROM packets WHERE next_at <= ? ORDER BY next_at LIMIT 100')
			.all(now);
		for (const { id } of due) act(this.house, id, { kind: 'pellum' }, { do: 'keepTime' });
		sendScheduled(this.house);
	}
}

export function failingJobs(house: House): FailingJob[] {
	return house.db
		.prepare<[], { kind: string; attempts: number; error: string; due_at: string }>(
			'SELECT kind, attempts, error, due_at FROM jobs WHERE done_at IS NULL AND attempts > 0 ORDER BY attempts DESC LIMIT 100'
		)
		.all()
		.map((row) => ({ kind: row.kind, attempts: row.attempts, error: row.error, dueAt: row.due_at }));
}

/** Tries everything that was put off at once. */
export function retryNow(house: House): void {
	house.db.prepare('UPDATE jobs SET due_at = ? WHERE done_at IS NULL AND attempts > 0').run(house.now().toISOString());
	house.changes.emit('jobs');
}
