import { firstBroken, GENESIS } from '../../core/audit';
import type { Db } from '../db';
import { sha256Text } from '../ids';
import type { RecordedOfficeEvent } from './events';

/** The record as a whole, for commands: told in an open form, and checked. */

/** The whole record in an open form: each event's canonical JSON (RFC 8785) with the hash that binds it to those before. */
export function officeRecord(db: Db): { format: 'pellum-office-record/1'; links: { body: string; hash: string }[] } {
	return {
		format: 'pellum-office-record/1',
		links: db.prepare<[], { body: string; hash: string }>('SELECT body, hash FROM office_events ORDER BY n').all()
	};
}

/** What is wrong with the record, a sentence each. */
export function officeFaults(db: Db): string[] {
	const rows = db
		.prepare<[], { n: number; body: string; hash: string }>('SELECT n, body, hash FROM office_events ORDER BY n')
		.all();
	const broken = firstBroken(sha256Text, rows, GENESIS);
	if (broken >= 0) return [`Office record: event ${broken + 1} does not follow from those before it.`];
	let last = '';
	for (const [i, row] of rows.entries()) {
		const { n, at } = JSON.parse(row.body) as RecordedOfficeEvent;
		if (row.n !== i + 1 || n !== row.n) return [`Office record: event ${i + 1} is missing.`];
		if (at < last) return [`Office record: event ${n} is from before the one before it.`];
		last = at;
	}
	return [];
}

/** What stands in the lists of accounts otherwise than the record tells; accounts older than the record are left out. */
export function accountFaults(db: Db): string[] {
	const told = new Map<string, { name: string; email: string; level: string; closed: number }>();
	for (const { body } of db.prepare<[], { body: string }>('SELECT body FROM office_events ORDER BY n').iterate()) {
		const event = JSON.parse(body) as RecordedOfficeEvent;
		if (event.type === 'AccountMade') {
			const { name, email, level } = event;
			told.set(event.account, { name, email, level, closed: 0 });
		}
		const one = 'account' in event && event.account ? told.get(event.account) : undefined;
		if (one && event.type === 'LevelChanged') one.level = event.to;
		if (one && event.type === 'AccountClosed') one.closed = 1;
	}
	const rows = db
		.prepare<[], { id: string; name: string; email: string; level: string; closed: number }>(
			'SELECT id, name, email, level, closed_at IS NOT NULL AS closed FROM accounts'
		)
		.all();
	const faults = rows.flatMap(({ id, ...row }) => {
		const one = told.get(id);
		told.delete(id);
		return !one || JSON.stringify(one) === JSON.stringify(row)
			? []
			: [`The account of ${row.name} is not what the office record tells of it.`];
	});
	return [...faults, ...[...told.values()].map(({ name }) => `The account of ${name} is missing.`)];
}

/** Keys and hooks that may otherwise than the record tells, or are in use where it tells their end. */
export function programFaults(db: Db): string[] {
	const told = new Map<string, string>();
	for (const { body } of db.prepare<[], { body: string }>('SELECT body FROM office_events ORDER BY n').iterate()) {
		const event = JSON.parse(body) as RecordedOfficeEvent;
		if (event.type === 'ApiKeyMade')
			told.set(event.key, JSON.stringify([event.account, event.called, JSON.stringify(event.rights), false]));
		if (event.type === 'HookMade') told.set(event.hook, JSON.stringify([event.account, event.address, false]));
		const ended = event.type === 'ApiKeyEnded' ? event.key : event.type === 'HookEnded' ? event.hook : null;
		if (ended !== null) told.set(ended, (told.get(ended) ?? '').replace(/false]$/, 'true]'));
	}
	const keys = db
		.prepare<[], { id: string; account: string; name: string; rights: string; ended: number }>(
			'SELECT id, account, name, rights, ended_at IS NOT NULL AS ended FROM api_keys'
		)
		.all()
		.map((one) => ({
			id: one.id,
			called: `The API key “${one.name}”`,
			is: JSON.stringify([one.account, one.name, one.rights, one.ended === 1])
		}));
	const hooks = db
		.prepare<[], { id: string; account: string; address: string; ended: number }>(
			'SELECT id, account, address, ended_at IS NOT NULL AS ended FROM hooks'
		)
		.all()
		.map((one) => ({
			id: one.id,
			called: `What is told to ${one.address}`,
			is: JSON.stringify([one.account, one.address, one.ended === 1])
		}));
	const faults = [...keys, ...hooks].flatMap(({ id, called, is }) => {
		const same = told.get(id) === is;
		told.delete(id);
		return same ? [] : [`${called} is not what the office record tells of it.`];
	});
	return [...faults, ...(told.size > 0 ? ['A key or an address that the office record tells of is missing.'] : [])];
}

/** Folders that are open, or have other members, otherwise than the record tells: who sees into one is nobody's to change in silence. */
export function folderFaults(db: Db): string[] {
	const told = new Map<string, { open: number; members: Map<string, string> }>();
	const none = () => ({ open: 1, members: new Map<string, string>() });
	for (const { body } of db.prepare<[], { body: string }>('SELECT body FROM office_events ORDER BY n').iterate()) {
		const event = JSON.parse(body) as RecordedOfficeEvent;
		if (event.type !== 'FolderChanged') continue;
		const one = told.get(event.folder) ?? none();
		told.set(event.folder, one);
		if (event.what === 'opened' || event.what === 'closed') one.open = event.what === 'opened' ? 1 : 0;
		if (event.what === 'removed') told.delete(event.folder);
		if (event.what === 'member' && event.power !== null) one.members.set(event.account, event.power);
		if (event.what === 'member' && event.power === null) one.members.delete(event.account);
	}
	const members = db.prepare<[string], { account: string; power: string }>(
		'SELECT account, power FROM folder_members WHERE folder = ?'
	);
	const folders = db.prepare<[], { name: string; open: number }>('SELECT name, open FROM folders').all();
	const faults = folders.flatMap(({ name, open }) => {
		const one = told.get(name) ?? none();
		told.delete(name);
		const now = members.all(name);
		const same = now.length === one.members.size && now.every((m) => one.members.get(m.account) === m.power);
		return same && open === one.open ? [] : [`Who sees into the folder “${name}” is not what the office record tells.`];
	});
	return [...faults, ...[...told.keys()].map((name) => `The folder “${name}” is missing.`)];
}
