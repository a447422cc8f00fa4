import { mayIn, type Members, type Power } from '../../core/access';
import { cutText, oneLine } from '../../core/clean-text';
import { folded } from '../../core/folded';
import { refuse, type Refusal } from '../../core/refusal';
import type { Account } from '../accounts/levels';
import { inTransaction, type Db } from '../db';
import type { House } from '../house';
import { note, type Doer } from '../office-record';

export interface Folder {
	name: string;
	/** the whole office's, each by their level */
	open: boolean;
	/** of a closed one, by name */
	members: { account: string; name: string; power: Power }[];
	/** how many packets lie in it, in any state */
	packets: number;
	templates: number;
}

interface Row {
	name: string;
	open: number;
	templates: number;
	packets: number;
}

/** Every folder by name, with its members. */
export function listFolders(house: House): Folder[] {
	const members = house.db.prepare<[string], Folder['members'][0]>(
		`SELECT m.account, a.name, m.power FROM folder_members m JOIN accounts a ON a.id = m.account
		 WHERE m.folder = ? AND a.closed_at IS NULL ORDER BY a.name`
	);
	return house.db
		.prepare<[], Row>(
			`SELECT f.name, f.open, (SELECT coalesce(sum(n), 0) FROM packet_counts c WHERE c.folder = f.name) AS packets,
			 (SELECT count(*) FROM templates t WHERE t.folder = f.name) AS templates FROM folders f ORDER BY f.name`
		)
		.all()
		.map((row) => ({ ...row, open: row.open === 1, members: members.all(row.name) }));
}

/** Who belongs to a closed folder; null for an open one, for none, and for a label that no folder has. */
export function membersOf(db: Db, folder: string): Members {
	if (folder === '') return null;
	const open = db.prepare<[string], number>('SELECT open FROM folders WHERE name = ?').pluck().get(folder);
	if (open !== 0) return null;
	const rows = db
		.prepare<[string], { account: string; power: Power }>('SELECT account, power FROM folder_members WHERE folder = ?')
		.all(folder);
	return Object.fromEntries(rows.map(({ account, power }) => [account, power]));
}

/** The folders this account may put something into, by name. */
export function foldersFor(house: House, account: Account): string[] {
	return house.db
		.prepare<[], string>('SELECT name FROM folders ORDER BY name')
		.pluck()
		.all()
		.filter((name) => mayIn(account, 'prepares', membersOf(house.db, name)));
}

/** Refuses a folder that is not there, or in which this account doesn't prepare. */
export function folderFault(db: Db, account: Account, folder: string): Refusal | null {
	if (folder === '') return null;
	const there = db.prepare('SELECT 1 FROM folders WHERE name = ?').get(folder);
	if (there && mayIn(account, 'prepares', membersOf(db, folder))) return null;
	return refuse(
		'no-folder',
		`There is no folder “${folder}” that you may put something into. Choose another one.`,
		'folder'
	);
}

/** The folder of this name, however it is capitalised; made, open, where there is none. '' for a name of nothing. */
export function folderNamed(house: House, doer: Doer, wanted: string): string {
	const name = cutText(oneLine(wanted.trim()), 80);
	if (name === '') return '';
	return inTransaction(house.db, () => {
		const same = house.db
			.prepare<[], string>('SELECT name FROM folders')
			.pluck()
			.all()
			.find((one) => folded(one) === folded(name));
		if (same !== undefined) return same;
		house.db.prepare('INSERT INTO folders (name, made_at) VALUES (?, ?)').run(name, house.now().toISOString());
		note(house, doer, { type: 'FolderChanged', folder: name, what: 'made' });
		return name;
	});
}
