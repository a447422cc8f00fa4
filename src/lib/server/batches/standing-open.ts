import { lstat, mkdir, readdir, readFile, rename } from 'node:fs/promises';
import path from 'node:path';
import type { Need } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { accountById, type Account } from '../accounts';
import type { House } from '../house';
import { logOf } from '../log';
import { organisation } from '../settings';
import { verdictsOf } from './judging';
import { runBatch } from './running';
import { readBatch, replaceSheet } from './store';

/** A batch that stands open: each sheet that comes is judged, what is ready goes, and the rest is on the Desk. */

const log = logOf('sheets');

/** Whether it stands open, and what of the last sheet is to be looked at. */
export function standingOpen(house: House, id: string): { open: boolean; trouble: string; folder: string | null } {
	const row = house.db
		.prepare<[string], { openedBy: string | null; trouble: string }>(
			'SELECT opened_by AS openedBy, trouble FROM batches WHERE id = ?'
		)
		.get(id);
	return {
		open: (row?.openedBy ?? null) !== null,
		trouble: row?.trouble ?? '',
		folder: organisation(house.db).sheetsIn ? folderOf(house, id) : null
	};
}

/** Lets a batch stand open for whoever says so, or ends that. */
export function standOpen(house: House, account: Account, id: string, open: boolean): Refusal | null {
	const batch = readBatch(house, id);
	if (isRefusal(batch)) return batch;
	house.db.prepare("UPDATE batches SET opened_by = ?, trouble = '' WHERE id = ?").run(open ? account.id : null, id);
	house.changes.emit('packet', '');
	return null;
}

/** Somebody has seen what was to be looked at. */
export function seenTrouble(house: House, id: string): void {
	said(house, id, '');
}

function said(house: House, id: string, trouble: string): void {
	house.db.prepare('UPDATE batches SET trouble = ? WHERE id = ?').run(trouble, id);
	house.changes.emit('packet', '');
}

/** A newer sheet, put in the place of the one before; of a batch that stands open what is ready goes at once. */
export async function takeSheet(
	house: House,
	account: Account,
	id: string,
	bytes: Uint8Array
): Promise<Refusal | null> {
	const no = await replaceSheet(house, account, id, bytes);
	if (no || !standingOpen(house, id).open) return no;
	const batch = readBatch(house, id);
	if (isRefusal(batch)) return batch;
	const found = verdictsOf(house, account, batch);
	if (isRefusal(found)) return found;
	const count = (is: string) => found.verdicts.filter((verdict) => verdict.is === is).length;
	const [faulty, twice] = [count('faulty'), count('twice')];
	const rest = [...(faulty > 0 ? [`${faulty} faulty`] : []), ...(twice > 0 ? [`${twice} that stand there twice`] : [])];
	said(house, id, rest.length > 0 ? `Of its newest sheet these wait for you: ${rest.join(', ')}.` : '');
	if (count('ready') === 0) return null;
	const begun = runBatch(house, account, id);
	return isRefusal(begun) ? begun : null;
}

/** What of sheets that came by themselves needs an account. */
export function sheetsToLookAt(house: House, account: Account, most: number): Need[] {
	return house.db
		.prepare<[string, number], { batch: string; name: string; say: string }>(
			`SELECT id AS batch, name, trouble AS say FROM batches INDEXED BY batches_trouble
			 WHERE owner = ? AND trouble <> '' LIMIT ?`
		)
		.all(account.id, most)
		.map((row) => ({ what: 'sheet', ...row }));
}

/** Where sheets of a batch are dropped. */
const folderOf = (house: House, id: string): string => path.resolve(house.config.folder, 'in', id);

const SHEET = /^[^.].*\.(csv|xlsx|xlsm)$/i;
const LARGEST = 10 * 1024 * 1024;
/** A file that was changed so lately may still be written, in ms. */
const STILL = 2000;

/**
 * Looks for sheets in the folders of batches that stand open, where the office permits it. Each is taken once: it lies in `taken` or
 * in `refused` afterwards. One that can't be read keeps the others from nothing.
 */
export async function lookForSheets(house: House): Promise<void> {
	if (!organisation(house.db).sheetsIn) return;
	const open = house.db
		.prepare<[], { id: string; openedBy: string }>(
			`SELECT id, opened_by AS openedBy FROM batches INDEXED BY batches_standing WHERE opened_by IS NOT NULL`
		)
		.all();
	for (const { id, openedBy } of open) {
		try {
			await lookInto(house, id, openedBy);
		} catch (error) {
			log.error(error, `the folder of batch ${id} could not be looked into`);
			said(house, id, `Its folder can’t be looked into: ${(error as Error).message}`);
		}
	}
}

async function lookInto(house: House, id: string, openedBy: string): Promise<void> {
	const folder = folderOf(house, id);
	await mkdir(folder, { recursive: true });
	for (const name of (await readdir(folder)).filter((one) => SHEET.test(one)).sort()) {
		const file = path.join(folder, name);
		const found = await lstat(file);
		// a link would lead to any file of the machine
		if (!found.isFile() || Date.now() - found.mtimeMs < STILL) continue;
		const account = accountById(house, openedBy);
		const no = !account
			? refuse('no-account', 'Whoever had it stand open has no account any more.')
			: found.size > LARGEST
				? refuse('sheet-too-large', 'A sheet may have 10 MB at most.')
				: await takeSheet(house, account, id, new Uint8Array(await readFile(file)));
		// one is being sent: it waits its turn
		if (no?.code === 'batch-runs') return;
		if (no) said(house, id, `“${name}” was not taken: ${no.say}`);
		const done = path.join(folder, no ? 'refused' : 'taken');
		await mkdir(done, { recursive: true });
		await rename(file, path.join(done, `${house.now().toISOString().replaceAll(':', '-')} ${name}`));
	}
}
