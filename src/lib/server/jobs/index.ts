import { cutText } from '../../core/clean-text';
import type { LetterJob } from '../accounts';
import { makeBackup } from '../backup';
import { giveUp, workBatch, type BatchJob } from '../batches';
import { isBusy, isFull } from '../db';
import { tellNext, type HookJob } from '../hooks';
import { checkIdentity, forgetPictures, type IdentityJob } from '../identity';
import { followUp, type FollowJob } from '../intakes';
import type { House } from '../house';
import { workKeeping, type KeepingJob } from '../keeping';
import { logOf } from '../log';
import { playNotary } from '../notary';
import { checkReturn, type PaperJob } from '../paper';
import { wantPace, workPace } from '../pace';
import { readScans, type ReadingJob } from '../papers';
import { indexWords } from '../words';
import { sendLetter } from './account-letters';
import { sendCaseLetter } from './case-letters';
import { keepTime } from './clock';
import { Lane } from './lanes';
import { sendMessage, type MessageJob } from './messages';
import { isDone, KINDS, markDone, nextJob, putOff, setAside, type JobRow } from './outbox';
import { sealPacket } from './sealing';

export { failingJobs, retryNow } from './outbox';

const log = logOf('jobs');

/**
 * Tries after which a job is set aside: one that breaks is likely to break again (about ten minutes of growing pauses);
 * one that waits for somebody outside is given the days that RFC 5321 §4.5.4.1 asks for.
 */
const MOST_TRIES = { breaks: 8, waits: 130 };
/** Pauses in ms while nothing can be written: growing, and a line in the log at most so often. */
const FULL = { first: 1000, longest: 60_000, said: 60_000 };

/** Not done yet, through nobody's fault here. */
class NotYet extends Error {}

/**
 * Does what the outbox asks for: each job at least once, again with growing pauses when it fails; what can't be done is
 * set aside and shown, never given up silently, and never keeps the others waiting. One runner a database.
 */
export class JobRunner {
	private readonly lanes: Lane[];
	private timer: NodeJS.Timeout | null = null;
	private stopped = false;
	/** somebody does it all one after the other: nothing begins beside that */
	private draining = 0;
	private waiting: (() => void)[] = [];
	private full = { until: 0, pause: FULL.first, said: -Infinity };

	/** @param pause how long a lane pauses after failures, in ms */
	constructor(
		private house: House,
		pause?: number
	) {
		this.lanes = KINDS.map((kind) => new Lane(kind, house, pause));
	}

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
		if (this.busy) await new Promise<void>((resolve) => this.waiting.push(resolve));
	}

	/** Does everything that is due now, one after the other, and what comes of it; for scripts and tests. */
	async drain(): Promise<void> {
		this.draining += 1;
		try {
			let did = true;
			while (did) {
				did = false;
				keepTime(this.house);
				wantPace(this.house);
				for (const lane of this.lanes)
					for (let job = this.next(lane); job && lane.room > 0; job = this.next(lane)) {
						await this.run(job, lane);
						did = true;
					}
			}
		} finally {
			this.draining -= 1;
		}
	}

	private get busy(): boolean {
		return this.lanes.some((lane) => lane.running.size > 0);
	}

	private wake = (why?: string): void => {
		if (why === 'again') this.lanes.forEach((lane) => lane.open());
		setImmediate(() => {
			if (this.stopped || this.draining > 0 || !this.house.db.open || Date.now() < this.full.until) return;
			try {
				keepTime(this.house);
				wantPace(this.house);
				for (const lane of this.lanes) {
					while (lane.room > 0) {
						const job = this.next(lane);
						if (!job) break;
						void this.run(job, lane);
					}
				}
			} catch (error) {
				this.rest(error, 'the outbox can’t be read or written');
			}
		});
	};

	private next(lane: Lane): JobRow | undefined {
		return nextJob(this.house, lane.kind, [...lane.running]);
	}

	private async run(job: JobRow, lane: Lane): Promise<void> {
		lane.running.add(job.id);
		let failed: unknown = null;
		try {
			await lane.through(async () => {
				const why = await this.perform(job);
				if (why !== null) throw new NotYet(why);
			});
		} catch (error) {
			failed = error;
		}
		if (failed !== null) this.failed(job, failed);
		else this.full.pause = FULL.first;
		lane.running.delete(job.id);
		if (!this.busy) this.waiting.splice(0).forEach((resolve) => resolve());
		if (failed === null) this.wake();
	}

	private failed(job: JobRow, error: unknown): void {
		if (isFull(error) || isBusy(error)) return this.rest(error, `job ${job.key} could not be done`);
		const outside = error instanceof NotYet;
		if (!outside) log.error(error, `job ${job.key} failed`);
		const why = cutText(error instanceof Error ? error.message : String(error), 500);
		try {
			if (isDone(this.house, job.id)) return;
			if (job.attempts + 1 < (outside ? MOST_TRIES.waits : MOST_TRIES.breaks)) putOff(this.house, job, why);
			else {
				setAside(this.house, job, why);
				if (job.kind === 'batch') giveUp(this.house, JSON.parse(job.payload) as BatchJob);
			}
			this.house.changes.emit('packet', '');
		} catch (again) {
			this.rest(again, `job ${job.key} could not be put off`);
		}
	}

	/** A full, locked or read-only database is nobody's fault in particular: all rest for a while, longer each time. */
	private rest(error: unknown, what: string): void {
		const now = Date.now();
		if (now - this.full.said >= FULL.said) {
			this.full.said = now;
			log.error(error, what);
		}
		if (now < this.full.until) return;
		this.full.until = now + this.full.pause;
		this.full.pause = Math.min(FULL.longest, this.full.pause * 2);
	}

	private perform(job: JobRow): Promise<string | null> {
		const payload: unknown = JSON.parse(job.payload);
		const done = () => markDone(this.house, job.id);
		switch (job.kind) {
			case 'read':
				return readScans(this.house, payload as ReadingJob, done);
			case 'batch':
				return workBatch(this.house, payload as BatchJob, done);
			case 'seal':
				return sealPacket(this.house, (payload as MessageJob).packet, done);
			case 'letter':
				return sendLetter(this.house, job.key, payload as LetterJob, done);
			case 'case':
				return sendCaseLetter(this.house, job.key, payload as { case: string; locked: string }, done);
			case 'follow':
				return followUp(this.house, job.key, payload as FollowJob, done);
			case 'identity':
				return checkIdentity(this.house, payload as IdentityJob, done);
			case 'paper':
				return checkReturn(this.house, payload as PaperJob, done);
			case 'notary':
				return playNotary(this.house, payload as { packet: string }, done);
			case 'words':
				return indexWords(this.house, payload as { packet: string }, done);
			case 'forget':
				return forgetPictures(this.house, payload as { packet: string }, done);
			case 'keeping':
				return workKeeping(this.house, payload as KeepingJob, done);
			case 'pace':
				return workPace(this.house, done);
			case 'hook':
				return tellNext(this.house, payload as HookJob, done);
			case 'backup':
				return makeBackup(this.house, done);
			case 'message':
				return sendMessage(this.house, job.key, payload as MessageJob, done);
		}
	}
}
