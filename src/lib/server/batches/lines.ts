import type { BatchLine, BatchStanding } from '../../core/packet';
import type { Account } from '../accounts';
import { closedTo } from '../folders';
import type { House } from '../house';

/** How many batches stand on the Desk at most; whoever has more looks at Batches. */
const MOST = 20;
/** After any id. */
const LAST = '\u{10ffff}';

export function standingOf({ db }: House, id: string): BatchStanding {
	const standing: BatchStanding = { have: 0, out: 0, ended: 0, unreachable: 0, longest: null, until: null };
	for (const { status, n } of db
		.prepare<[string], { status: string; n: number }>(
			'SELECT status, count(*) AS n FROM packets INDEXED BY packets_of_batch WHERE batch = ? GROUP BY status'
		)
		.all(id))
		standing[status === 'completed' ? 'have' : status === 'out' || status === 'held' ? 'out' : 'ended'] += n;
	standing.longest =
		db
			.prepare<[string], string>(
				`SELECT since FROM packets INDEXED BY packets_in_batch
				 WHERE batch = ? AND ended_at IS NULL ORDER BY since LIMIT 1`
			)
			.pluck()
			.get(id) ?? null;
	standing.until =
		db
			.prepare<[string], string>(
				`SELECT deadline FROM packets INDEXED BY packets_in_batch_until
				 WHERE batch = ? AND ended_at IS NULL AND deadline IS NOT NULL ORDER BY deadline LIMIT 1`
			)
			.pluck()
			.get(id) ?? null;
	standing.unreachable = db
		.prepare<[string], number>(
			'SELECT count(*) FROM packets INDEXED BY packets_in_batch_unreachable WHERE batch = ? AND unreachable = 1'
		)
		.pluck()
		.get(id)!;
	return standing;
}

/**
 * The batches that have something out and that this account has made or sees the folder of, the newest first, each as one line. The
 * packets of a batch lie where its template puts them: the folder is that of the one that waits longest.
 */
export function batchLines(house: House, account: Account): BatchLine[] {
	const { db } = house;
	const hidden = closedTo(db, account, 'sees');
	const next = db.prepare<[string], string | null>(
		'SELECT max(batch) FROM packets INDEXED BY packets_in_batch WHERE batch < ? AND ended_at IS NULL'
	);
	const named = db.prepare<[string], { name: string; owner: string; template: string; folder: string }>(
		`SELECT b.name, b.owner, t.title AS template, (
			SELECT folder FROM packets INDEXED BY packets_in_batch WHERE batch = b.id AND ended_at IS NULL ORDER BY since LIMIT 1
		 ) AS folder FROM batches b JOIN templates t ON t.id = b.template WHERE b.id = ?`
	);
	const lines: BatchLine[] = [];
	for (let id = next.pluck().get(LAST); id && lines.length < MOST; id = next.pluck().get(id)) {
		const { owner, folder, ...names } = named.get(id)!;
		const mine = owner === account.id;
		if (mine || !hidden.includes(folder)) lines.push({ id, ...names, mine, ...standingOf(house, id) });
	}
	return lines;
}
