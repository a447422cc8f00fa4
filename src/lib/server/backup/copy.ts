import Database from 'better-sqlite3';
import { chmodSync, existsSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { checkData } from '../check';

/**
 * Backing up: the database as one file that is whole at one moment, made while everything goes on (SQLite's online backup), with
 * the locked private keys apart in a file of their own, and checked before it counts.
 */
export const keysFile = (file: string): string => `${file}.keys`;

interface KeptKeys {
	format: 'pellum-keys/1';
	keys: { name: string; locked: string }[];
}

/** Throws where the copy can't be made or is not sound. @returns how many packets and events it holds */
export async function backUp(data: string, file: string): Promise<{ packets: number; events: number }> {
	const part = `${file}.part`;
	rmSync(part, { force: true });
	const source = new Database(path.join(data, 'pellum.db'), { readonly: true });
	try {
		await source.backup(part);
	} finally {
		source.close();
	}
	chmodSync(part, 0o600);
	const copy = new Database(part);
	try {
		copy.pragma('journal_mode = DELETE');
		const keys = copy.prepare<[], { name: string; key: Buffer }>('SELECT name, locked_key AS key FROM keys').all();
		// what is taken out must not be found in the file's free pages
		copy.pragma('secure_delete = ON');
		copy.prepare("UPDATE keys SET locked_key = x''").run();
		const { packets, events, faults } = checkData(copy);
		if (faults.length > 0) throw new Error(`The copy is not sound: ${faults.slice(0, 3).join(' ')}`);
		const kept: KeptKeys = {
			format: 'pellum-keys/1',
			keys: keys.map(({ name, key }) => ({ name, locked: key.toString('base64') }))
		};
		writeFileSync(keysFile(file), JSON.stringify(kept, null, '\t'), { mode: 0o600 });
		copy.close();
		renameSync(part, file);
		return { packets, events };
	} finally {
		copy.close();
		rmSync(part, { force: true });
	}
}

/** The locked keys that were kept beside a backup, by name; none where they are not there. */
export function keysBeside(file: string): Map<string, Buffer> {
	if (!existsSync(keysFile(file))) return new Map();
	const { keys } = JSON.parse(readFileSync(keysFile(file), 'utf8')) as KeptKeys;
	return new Map(keys.map(({ name, locked }) => [name, Buffer.from(locked, 'base64')]));
}
