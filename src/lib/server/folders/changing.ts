import type { Power } from '../../core/access';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { inTransaction } from '../db';
import type { House } from '../house';
import { note, type Doer, type FolderChange } from '../office-record';

/** What owners do to a folder; each change is in the office's record. */

const GONE = refuse('no-folder', 'There is no such folder.');

function changed(
	house: House,
	doer: Doer,
	folder: string,
	change: () => FolderChange | Refusal | null
): Refusal | null {
	return inTransaction(house.db, () => {
		if (!house.db.prepare('SELECT 1 FROM folders WHERE name = ?').get(folder)) return GONE;
		const done = change();
		if (done === null || isRefusal(done)) return done;
		note(house, doer, { type: 'FolderChanged', folder, ...done });
		house.changes.emit('packet', '');
		return null;
	});
}

/** To the whole office, or to its members only, who stay named while it is open. */
export function openFolder(house: House, doer: Doer, folder: string, open: boolean): Refusal | null {
	return changed(house, doer, folder, () => {
		const done = house.db
			.prepare('UPDATE folders SET open = @open WHERE name = @folder AND open <> @open')
			.run({ folder, open: open ? 1 : 0 });
		return done.changes === 0 ? null : { what: open ? 'opened' : 'closed' };
	});
}

/** What somebody may in it; null: they are no member any more. */
export function setMember(
	house: House,
	doer: Doer,
	folder: string,
	account: string,
	power: Power | null
): Refusal | null {
	return changed(house, doer, folder, () => {
		const who = house.db
			.prepare<[string], { name: string; level: string }>(
				'SELECT name, level FROM accounts WHERE id = ? AND closed_at IS NULL'
			)
			.get(account);
		if (!who) return refuse('no-account', 'There is no such account.', account);
		if (power === null) {
			const gone = house.db.prepare('DELETE FROM folder_members WHERE folder = ? AND account = ?').run(folder, account);
			return gone.changes === 0 ? null : { what: 'member', account, name: who.name, power };
		}
		if (who.level === 'viewer' && power !== 'sees')
			return refuse('level-less', `${who.name} only sees, by their level. Change that under Accounts first.`, account);
		const done = house.db
			.prepare(
				`INSERT INTO folder_members (folder, account, power) VALUES (?, ?, ?)
				 ON CONFLICT (folder, account) DO UPDATE SET power = excluded.power WHERE power <> excluded.power`
			)
			.run(folder, account, power);
		return done.changes === 0 ? null : { what: 'member', account, name: who.name, power };
	});
}

/** Only an empty one goes: a packet's folder is never lost by taking a folder away. */
export function removeFolder(house: House, doer: Doer, folder: string): Refusal | null {
	return changed(house, doer, folder, () => {
		const lies =
			house.db.prepare('SELECT 1 FROM packet_counts WHERE folder = ? AND n > 0').get(folder) ??
			house.db.prepare('SELECT 1 FROM templates WHERE folder = ?').get(folder);
		if (lies) return refuse('folder-full', `Something lies in “${folder}” still. Move it first.`, folder);
		house.db.prepare('DELETE FROM folder_members WHERE folder = ?').run(folder);
		house.db.prepare('DELETE FROM folders WHERE name = ?').run(folder);
		return { what: 'removed' };
	});
}
