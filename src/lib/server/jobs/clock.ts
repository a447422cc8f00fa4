import { isRefusal, type Refusal } from '../../core/refusal';
import { isFull } from '../db';
import type { House } from '../house';
import { act } from '../packets/act';
import { askMornings } from '../morning';
import { sendDue } from '../packets/schedule';
import { pauseAfter } from './outbox';

/**
 * What time has brought: reminders, warnings, ends, and drafts that go by themselves. What can't be done is set aside
 * for a while with its reason, so that it keeps nothing else waiting.
 */
type What = 'clock' | 'draft';

/** Something whose time has come and that could not be done, for the Desk. */
interface Trouble {
	what: What;
	id: string;
	title: string;
	error: string;
	since: string;
}

const AT_A_TIME = 100;

export function keepTime(house: House): void {
	askMornings(house);
	const now = house.now().toISOString();
	const due = house.db
		.prepare<[string, string, number], { id: string }>(
			`SELECT id FROM packets p WHERE next_at <= ?
			 AND NOT EXISTS (SELECT 1 FROM troubles t WHERE t.what = 'clock' AND t.id = p.id AND t.again_at > ?)
			 ORDER BY next_at LIMIT ?`
		)
		.all(now, now, AT_A_TIME);
	for (const { id } of due)
		attempt(house, 'clock', id, () => {
			const done = act(house, id, { kind: 'pellum' }, { do: 'keepTime' });
			return isRefusal(done) ? done : stillDue(house, id, now) ? 'Its time has come, and nothing came of it.' : null;
		});
	const drafts = house.db
		.prepare<[string, string, number], { id: string; owner: string; revision: number }>(
			`SELECT id, owner, revision FROM drafts d WHERE send_at IS NOT NULL AND send_at <= ?
			 AND NOT EXISTS (SELECT 1 FROM troubles t WHERE t.what = 'draft' AND t.id = d.id AND t.again_at > ?) LIMIT ?`
		)
		.all(now, now, AT_A_TIME);
	for (const draft of drafts)
		attempt(house, 'draft', draft.id, () => {
			sendDue(house, draft);
			return null;
		});
}

function stillDue(house: House, id: string, now: string): boolean {
	return house.db.prepare('SELECT 1 FROM packets WHERE id = ? AND next_at <= ?').get(id, now) !== undefined;
}

function attempt(house: House, what: What, id: string, work: () => Refusal | string | null): void {
	let why: string | null;
	try {
		const result = work();
		why = isRefusal(result) ? result.say : result;
	} catch (error) {
		if (isFull(error)) throw error;
		why = error instanceof Error ? error.message : String(error);
	}
	if (why === null) house.db.prepare('DELETE FROM troubles WHERE what = ? AND id = ?').run(what, id);
	else note(house, what, id, why);
}

function note(house: House, what: What, id: string, why: string): void {
	const tries =
		house.db
			.prepare<[string, string], { tries: number }>('SELECT tries FROM troubles WHERE what = ? AND id = ?')
			.get(what, id)?.tries ?? 0;
	const now = house.now();
	house.db
		.prepare(
			`INSERT INTO troubles (what, id, tries, error, since, again_at) VALUES (?, ?, 1, ?, ?, ?)
			 ON CONFLICT (what, id) DO UPDATE SET tries = tries + 1, error = excluded.error, again_at = excluded.again_at`
		)
		.run(what, id, why, now.toISOString(), new Date(now.getTime() + pauseAfter(tries)).toISOString());
	house.changes.emit('packet', '');
}

/** What could not be done when its time came. */
export function troubles(house: House, most: number): Trouble[] {
	return house.db
		.prepare<[number], Trouble>(
			`SELECT t.what, t.id, coalesce(p.title, d.plan ->> '$.title', '') AS title, t.error, t.since FROM troubles t
			 LEFT JOIN packets p ON t.what = 'clock' AND p.id = t.id LEFT JOIN drafts d ON t.what = 'draft' AND d.id = t.id
			 LIMIT ?`
		)
		.all(most);
}
