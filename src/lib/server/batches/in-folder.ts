import { lstat, mkdir, readdir, readFile, rename } from 'node:fs/promises';
import path from 'node:path';
import { refuse } from '../../core/refusal';
import { accountById } from '../accounts';
import type { House } from '../house';
import { logOf } from '../log';
import { organisation } from '../settings';
import { said, takeSheet } from './standing-open';

/** Sheets that are dropped into the folder of a batch that stands open. */

const log = logOf('sheets');

/** Where sheets of a batch are dropped. */
const folderOf = (house: House, id: string): string => path.resolve(house.config.folder, 'in', id);

/** The same, as whoever may drop sheets there is told; null where the office permits it nobody. */
export const dropFolder = (house: House, id: string): string | null =>
	organisation(house.db).sheetsIn ? folderOf(house, id) : null;

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
