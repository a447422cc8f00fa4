import type { Need } from '../../core/packet';
import { isRefusal, type Refusal } from '../../core/refusal';
import type { Account } from '../accounts';
import type { House } from '../house';
import { verdictsOf } from './judging';
import { runBatch } from './running';
import { readBatch, replaceSheet } from './store';

/** A batch that stands open: each sheet that comes is judged, what is ready goes, and the rest is on the Desk. */

/** Whether it stands open, and what of the last sheet is to be looked at. */
export function standingOpen(house: House, id: string): { open: boolean; trouble: string } {
	const row = house.db
		.prepare<[string], { openedBy: string | null; trouble: string }>(
			'SELECT opened_by AS openedBy, trouble FROM batches WHERE id = ?'
		)
		.get(id);
	return {
		open: (row?.openedBy ?? null) !== null,
		trouble: row?.trouble ?? ''
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

/** Keeps what of it is to be looked at; '' for nothing. */
export function said(house: House, id: string, trouble: string): void {
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
