import type { House } from '../house';
import { doNext, type DeedJob } from './afterwards';
import { layNext, type DocumentsJob } from './documents';
import { sendRows, stopRun, type SendJob } from './running';

export { comingIn, forAllOut } from './afterwards';
export { acceptDocument, addDocuments, documentsOf, layAnew } from './documents';
export { forgetRow } from './forgetting';
export { planOfRow, verdictsOf } from './judging';
export { batchLines, standingOf } from './lines';
export { readySheet } from './ready';
export { batchRows } from './rows';
export { goOn, pauseRun, runBatch, stopRun } from './running';
export { readSheet } from './sheets';
export { sheetBack } from './standing';
export { dropFolder, lookForSheets } from './in-folder';
export { seenTrouble, sheetsToLookAt, standingOpen, standOpen, takeSheet } from './standing-open';
export { batches, chooseSheet, newBatch, putRight, readBatch, replaceSheet, settle } from './store';

/** Work on a batch: rows to send, or a deed for all that is out. */
export type BatchJob = SendJob | DeedJob | DocumentsJob;

export const workBatch = (house: House, job: BatchJob, done: () => void): Promise<null> =>
	'deed' in job
		? doNext(house, job, done)
		: 'documents' in job
			? layNext(house, job, done)
			: sendRows(house, job, done);

/** Work that could not be done was set aside: a run that it belongs to is over. */
export function giveUp(house: House, job: BatchJob): void {
	if (!('deed' in job) && !('documents' in job))
		stopRun(house, job, 'It could not go on; the reason stands on the Desk.');
}
