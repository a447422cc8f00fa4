import type { Plan } from '../../core/packet';
import { shownSize, type PageSize } from '../../core/page';
import { refuse, type Refusal } from '../../core/refusal';
import { pageInWorker, type Compared, type TakenIn } from '../../press';
import type { Account } from '../accounts';
import { readBlob } from '../blobs';
import { inTransaction } from '../db';
import type { House } from '../house';

/** What is kept of comparing a document with the file it was made from. */
export interface KeptComparing extends Compared {
	hidden: TakenIn['hidden'];
	/** which page of the file each page was, where they were brought into another order */
	from?: number[];
}

/** How a document's pages look beside its file: those that differ and nobody has accepted yet, and those accepted. */
export interface Looks {
	unlike: number[];
	accepted: { page: number; by: string }[];
}

export function comparingOf(house: House, digest: string): (KeptComparing & { original: string | null }) | null {
	const row = house.db
		.prepare<[string], { compared: string | null; original: string | null }>(
			'SELECT compared, original FROM papers WHERE digest = ?'
		)
		.get(digest);
	return row?.compared ? { ...(JSON.parse(row.compared) as KeptComparing), original: row.original } : null;
}

/** How the pages of a document look; null where they were never compared. */
export function looksOf(house: House, digest: string): Looks | null {
	const compared = comparingOf(house, digest);
	if (!compared) return null;
	const accepted = house.db
		.prepare<[string], { page: number; by: string }>(
			'SELECT page, name AS by FROM paper_looks WHERE paper = ? ORDER BY page'
		)
		.all(digest);
	return { unlike: compared.differ.filter((page) => !accepted.some((one) => one.page === page)), accepted };
}

/** Somebody has looked at pages that differ and takes them as they are. Pages that don't differ are passed over. */
export function acceptLooks(house: House, account: Account, digest: string, pages: number[]): Looks | Refusal {
	const compared = comparingOf(house, digest);
	if (!compared) return refuse('unknown-paper', 'This is not a document of this Pellum. Add it again.');
	return inTransaction(house.db, () => {
		for (const page of pages.filter((one) => compared.differ.includes(one)))
			house.db
				.prepare('INSERT OR IGNORE INTO paper_looks (paper, page, account, name, at) VALUES (?, ?, ?, ?, ?)')
				.run(digest, page, account.id, account.name, house.now().toISOString());
		return looksOf(house, digest)!;
	});
}

/** What keeps a plan from being sent: a page that looks different from its file, and that nobody has looked at. */
export function unlikePart(house: House, plan: Plan): Refusal | null {
	for (const paper of plan.papers) {
		const [page] = looksOf(house, paper.digest)?.unlike ?? [];
		if (page !== undefined)
			return refuse(
				'looks-different',
				`Page ${page + 1} of “${paper.name}” looks different from your file. Look at it on the Bench first.`,
				'papers'
			);
	}
	return null;
}

/** How each document of a plan was taken in, for its record: without pages it looks like its file throughout. */
export function takenAs(house: House, plan: Plan): { paper: string; pages: Looks['accepted'] }[] {
	return plan.papers.flatMap((paper) => {
		const looks = looksOf(house, paper.digest);
		return looks ? [{ paper: paper.id, pages: looks.accepted }] : [];
	});
}

const WIDTH = 900;

/** A page as a PNG: as it was taken in, or as the file shows it that it was made from. Null where there is none. */
export async function pageLook(
	house: House,
	digest: string,
	page: number,
	which: 'file' | 'taken'
): Promise<Uint8Array | null> {
	const row = house.db.prepare<[string], { pages: string }>('SELECT pages FROM papers WHERE digest = ?').get(digest);
	const compared = comparingOf(house, digest);
	const size = row && (JSON.parse(row.pages) as PageSize[])[page];
	if (!size || !compared) return null;
	const width = Math.round(Math.min(WIDTH, shownSize(size).width * 1.6));
	if (which === 'taken') return pageInWorker({ bytes: readBlob(house.db, digest)!.bytes, page, width });
	const original = compared.original && readBlob(house.db, compared.original);
	if (!original) return null;
	return pageInWorker({ bytes: original.bytes, page: compared.from?.[page] ?? page, width, hidden: compared.hidden });
}
