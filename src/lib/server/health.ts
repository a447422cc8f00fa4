import { statfsSync } from 'node:fs';
import { timingSafeEqual } from 'node:crypto';
import { backupList } from './backup';
import { isBusy } from './db';
import type { House } from './house';
import { sha256Text } from './ids';
import { KINDS, waitingIn, type Kind } from './jobs/outbox';

/** How this Pellum is, for a watcher: numbers only, nothing of anybody's. */
export interface Health {
	/** can be read and written */
	ready: boolean;
	/** what waits in each lane, and since when it pauses, ISO 8601 */
	lanes: Record<Kind, { waiting: number; pausedSince: string | null }>;
	/** how long the oldest job that is due has waited, in seconds; 0 where none is */
	oldestJob: number;
	/** when the last backup was made by itself, ISO 8601 */
	lastBackup: string | null;
	/** bytes left on the disk of the data folder */
	diskLeft: number;
}

export function health(house: House): Health {
	const { db } = house;
	const oldest = KINDS.flatMap(
		(kind) =>
			db
				.prepare<[string], string>(
					`SELECT due_at FROM jobs INDEXED BY jobs_due WHERE kind = ? AND done_at IS NULL AND set_aside_at IS NULL
					 ORDER BY due_at LIMIT 1`
				)
				.pluck()
				.get(kind) ?? []
	).sort()[0];
	const { bavail, bsize } = statfsSync(db.memory ? '.' : house.config.folder);
	return {
		ready: isWritable(house),
		lanes: Object.fromEntries(
			KINDS.map((kind) => [
				kind,
				{ waiting: waitingIn(house, kind), pausedSince: house.paused.get(kind)?.since ?? null }
			])
		) as Health['lanes'],
		oldestJob: oldest ? Math.max(0, Math.round((house.now().getTime() - Date.parse(oldest)) / 1000)) : 0,
		lastBackup: backupList(house)[0]?.at ?? null,
		diskLeft: bavail * bsize
	};
}

/** A lock that another program holds for a moment is no fault. */
function isWritable({ db }: House): boolean {
	try {
		db.exec('BEGIN IMMEDIATE; ROLLBACK');
		return true;
	} catch (error) {
		return isBusy(error);
	}
}

/** Whether it is the watcher's own word, `Authorization: Bearer …` with what `PELLUM_WATCHER` says; compared in constant time. */
export function isWatcher(house: House, authorization: string | null): boolean {
	const { watcher } = house.config;
	if (!watcher || !authorization) return false;
	const digest = (text: string) => Buffer.from(sha256Text(text));
	return timingSafeEqual(digest(authorization), digest(`Bearer ${watcher}`));
}
