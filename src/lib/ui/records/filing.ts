import type { PutAway } from '../../core/packet';
import { tell } from '../parts/told';
import { post } from '../post';

/** What can be done to packets that have been chosen in a list. */
export type Deed =
	| { do: PutAway; reason?: string }
	| { do: 'restore' }
	| { do: 'folder'; folder: string }
	| { do: 'type'; type: string };

export interface Refused {
	id: string;
	title: string;
	say: string;
}

/** A row as much as undoing needs of it. */
export interface Lying {
	id: string;
	folder: string;
	type: string;
	put: PutAway | null;
	sentAt: string;
}

const counted = (n: number): string => (n === 1 ? 'One packet' : `${n} packets`);

function said(deed: Deed, n: number): string {
	const many = counted(n);
	switch (deed.do) {
		case 'archive':
			return `${many} put into the archive`;
		case 'bin':
			return `${many} put into the bin`;
		case 'restore':
			return `${many} taken back`;
		case 'folder':
			return deed.folder === '' ? `${many} taken out of the folder` : `${many} put into ${deed.folder}`;
		case 'type':
			return deed.type === '' ? `${many} of no type now` : `${many} of the type ${deed.type} now`;
	}
}

/** What leads back, for those that lay the same: several deeds where they lay differently. */
function back(deed: Deed, rows: Lying[]): { deed: Deed; ids: string[] }[] {
	const ways = new Map<string, { deed: Deed; ids: string[] }>();
	for (const row of rows) {
		const way: Deed =
			deed.do === 'folder'
				? { do: 'folder', folder: row.folder }
				: deed.do === 'type'
					? { do: 'type', type: row.type }
					: row.put
						? { do: row.put }
						: { do: 'restore' };
		const key = JSON.stringify(way);
		ways.set(key, { deed: way, ids: [...(ways.get(key)?.ids ?? []), row.id] });
	}
	return [...ways.values()];
}

/**
 * Does it to those rows and says so, with a way back. Gives what was refused, a sentence each, or one sentence where nothing could be
 * asked.
 * @param then after whatever was done, also by the way back
 */
export async function fileRows(
	rows: Lying[],
	deed: Deed,
	then: () => unknown
): Promise<{ refused: Refused[]; wrong?: string }> {
	const ids = rows.map(({ id }) => id);
	const got = await post<{ done: string[]; refused: Refused[] }>(
		'/records/do',
		{ ids, ...deed },
		'Nothing was changed.'
	);
	if ('wrong' in got) return { refused: [], wrong: got.wrong };
	const done = rows.filter(({ id }) => got.done.includes(id));
	await then();
	if (done.length > 0)
		tell(said(deed, done.length), {
			run: async () => {
				for (const way of back(deed, done)) {
					const undone = await post('/records/do', { ids: way.ids, ...way.deed }, '');
					if ('wrong' in undone) return tell(undone.wrong);
				}
				await then();
				tell('As it was before');
			}
		});
	return { refused: got.refused };
}
