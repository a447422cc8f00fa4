/** The worker's entry: each export is a task by its name. Built into `dist/press/worker.js`. */
import type { MessagePort } from 'node:worker_threads';
import * as amendment from './amendment';
import * as jobs from './jobs';
import type { Told } from './lanes';
import { seeSide as side } from './identity/side';
import { flatSheet as flat } from './paper/flat';
import { heldSheet as held } from './paper/held';
import { journalSheet as journal, withPage as longer } from './notary';
import { readOwn } from './seal/own';
import { verifySealed, type Known } from './seal/verify';
import { personSheet as person } from './person';
import { inkedPaper as inked } from './paper/inked';
import { paperOut as out } from './paper/out';
import { reorderPages as reorder } from './page-order';
import { picturesToPdf as pictures } from './pictures';
import { unseenStamps as unseen } from './seen';
import { fitDocument as fitting, openBundle as opening } from './bundle';
import { readTable as table } from './sheet/read';
import { addColumns as columns, plainBook as rowsAsBook, readyBook as ready } from './sheet/write';
import {
	compareJob as compare,
	countJob as count,
	pageJob as page,
	takeInJob as taking,
	type TellPage
} from './take-in/job';
import { byOffice as office } from './word/office';
import { threadHere } from './worked';
import { readWord as read, wordByPlainWay as plain } from './word/word';

/** A task that says when it begins and at which page it is, to whoever has the other end of the port. */
function telling<J, R>(work: (job: J, tell: TellPage) => R): (given: { job: J; port: MessagePort }) => Promise<R> {
	return async ({ job, port }) => {
		const tell = (what: Told) => port.postMessage(what);
		port.postMessage({ thread: threadHere() });
		tell({ is: 'working' });
		try {
			return await work(job, (page, of) => tell({ is: 'page', page, of }));
		} finally {
			port.close();
		}
	};
}

export const drawn = telling(jobs.drawn);
export const markPicture = telling(jobs.markPicture);
export const seeSide = telling(side);
export const paperOut = telling(out);
export const flatSheet = telling(flat);
export const heldSheet = telling(held);
export const inkedPaper = telling(inked);
export const journalSheet = telling(journal);
export const personSheet = telling(person);
export const judgeSealed = telling((job: { file: Uint8Array; trusted: string[]; known: Known }) =>
	verifySealed(job.file, job.trusted, job.known)
);
export const stampAgain = telling(jobs.stampAgain);
export const trySeal = telling(jobs.trySeal);
export const readOwnFile = telling(readOwn);
export const changesSheet = telling(amendment.changesSheet);
export const stampedPaper = telling(amendment.stampedPaper);
export const readingCopy = telling(amendment.readingCopy);
export const withPage = telling(longer);
export const sealEvidence = telling(jobs.sealEvidence);
export const sealDisposal = telling(jobs.sealDisposal);
export const sealPaper = telling(jobs.sealPaper);
export const takeInJob = telling(taking);
export const compareJob = telling(compare);
export const pageCount = telling(count);
export const pageJob = telling(page);
export const unseenStamps = telling(unseen);
export const reorderPages = telling(reorder);
export const picturesToPdf = telling(pictures);
export const readWord = telling(async (job: Parameters<typeof read>[0]) => read(job));
export const wordByOffice = telling(({ bytes }: { bytes: Uint8Array }) => office(bytes));
export const wordByPlainWay = telling(plain);
export const openBundle = telling(opening);
export const fitDocument = telling(fitting);
export const readTable = telling(table);
export const addColumns = telling(columns);
export const readyBook = telling(ready);
export const plainBook = telling(rowsAsBook);
