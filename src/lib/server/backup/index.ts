import { Type, type Static } from '@sinclair/typebox';
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import { isRefusal, type Refusal } from '../../core/refusal';
import { border } from '../border';
import type { House } from '../house';
import { newId } from '../ids';
import { queue } from '../jobs/outbox';
import { BY_ITSELF, note, type Doer } from '../office-record';
import { readSetting, writeSetting } from '../settings';
import { keysFile } from './copy';

/** How often a backup is made by itself, and how many are kept. */
const Backups = Type.Object(
	{
		/** 0: none by itself */
		hours: Type.Integer({ minimum: 0, maximum: 168 }),
		keep: Type.Integer({ minimum: 1, maximum: 365 })
	},
	{ additionalProperties: false }
);
export type Backups = Static<typeof Backups>;
const backupsBorder = border(Backups);
const DEFAULT: Backups = { hours: 24, keep: 14 };

export function backups({ db }: House): Backups {
	const stored = readSetting(db, 'backups');
	return stored === undefined ? DEFAULT : (JSON.parse(stored) as Backups);
}

export function setBackups(house: House, by: Doer, wanted: unknown): Backups | Refusal {
	const checked = backupsBorder(wanted);
	if (isRefusal(checked)) return checked;
	note(house, by, { type: 'SettingsChanged', what: 'backups', from: { ...backups(house) }, to: { ...checked } });
	writeSetting(house.db, 'backups', JSON.stringify(checked));
	return checked;
}

/** Where they lie: `PELLUM_BACKUPS`, best on another disk, or beside the database. */
const folderOf = ({ config }: House): string => config.backups ?? path.join(config.folder, 'backups');

export interface BackupRow {
	name: string;
	at: string;
	bytes: number;
}

/** Those that are there, newest first. */
export function backupList(house: House): BackupRow[] {
	const folder = folderOf(house);
	if (!existsSync(folder)) return [];
	return readdirSync(folder)
		.filter((name) => /^pellum-[\d-]+\.db$/.test(name))
		.sort()
		.reverse()
		.map((name) => {
			const { mtime, size } = statSync(path.join(folder, name));
			return { name, at: mtime.toISOString(), bytes: size };
		});
}

/** Asks for one now. */
export function askBackup(house: House): void {
	queue(house, 'backup', `backup:${newId(new Date())}`, {});
	house.changes.emit('jobs');
}

/** Asks for one where the last is older than the setting says; machine's time, since it is about files. */
export function backupWhenDue(house: House): void {
	const { hours } = backups(house);
	if (hours === 0 || house.db.memory || house.config.demo) return;
	const last = backupList(house)[0];
	if (!last || Date.now() - Date.parse(last.at) > hours * 3_600_000) askBackup(house);
}

/** The job: a process of its own makes and checks the copy, so that nobody waits; the oldest beyond those kept go. */
export async function makeBackup(house: House, done: () => void): Promise<string | null> {
	const folder = folderOf(house);
	mkdirSync(folder, { recursive: true, mode: 0o700 });
	const name = `pellum-${new Date().toISOString().slice(0, 19).replaceAll(/[:T]/g, '-')}.db`;
	const said = await inItsOwnProcess(house, path.join(folder, name));
	if (said.status !== 0) return said.out.trim().slice(-400) || 'The backup could not be made.';
	const events = Number(/(\d+) events/.exec(said.out)?.[1] ?? 0);
	note(house, BY_ITSELF, { type: 'BackupMade', file: name, events });
	for (const old of backupList(house).slice(backups(house).keep)) {
		const file = path.join(folder, old.name);
		rmSync(file, { force: true });
		rmSync(keysFile(file), { force: true });
	}
	done();
	return null;
}

/** How long one may take, in ms. */
const LIMIT = 30 * 60_000;

function inItsOwnProcess(house: House, file: string): Promise<{ status: number | null; out: string }> {
	return new Promise((resolve) => {
		const child = spawn(process.execPath, ['--import', 'tsx', 'scripts/backup.ts', file], {
			env: { ...process.env, PELLUM_DATA: house.config.folder },
			stdio: ['ignore', 'pipe', 'pipe'],
			timeout: LIMIT
		});
		let out = '';
		const hear = (chunk: Buffer) => (out = (out + chunk.toString()).slice(-4000));
		child.stdout.on('data', hear);
		child.stderr.on('data', hear);
		child.on('error', (error) => resolve({ status: 1, out: error.message }));
		child.on('close', (status) => resolve({ status, out }));
	});
}
