import { Type, type Static } from '@sinclair/typebox';
import { isRefusal, refuse, type Refusal } from '../../../core/refusal';
import { Line } from '../../../core/schema';
import type { Account } from '../../accounts';
import {
	addDocuments,
	batches as listed,
	batchRows,
	forAllOut,
	goOn,
	newBatch,
	pauseRun,
	readBatch,
	runBatch,
	settle,
	sheetBack,
	stopRun,
	takeSheet,
	verdictsOf
} from '../../batches';
import type { House } from '../../house';
import { cursorOf, placeOf } from '../cursors';
import { FileAnswer, operation, type Call } from '../operation';
import { After, Id, oneOf, pageOf, strict } from '../schemas';
import { BatchBrief, BatchRow, Done, DONE } from '../shapes';
import { BOOK } from './templates';

const see = { part: 'batch', kind: 'batch', doing: 'see' } as const;
const change = { part: 'batch', kind: 'batch', doing: 'change' } as const;
const SHEET = { most: 10 * 1024 * 1024, takes: [BOOK, 'text/csv'] };
const Reason = Type.String({ minLength: 1, maxLength: 2000 });

function rowsIn(house: House, account: Account, id: string, query = new URLSearchParams()) {
	const batch = readBatch(house, id);
	if (isRefusal(batch)) return batch;
	const found = verdictsOf(house, account, batch);
	return isRefusal(found) ? found : { batch, ...batchRows(house, batch, found.verdicts, query) };
}

function stateOf(house: House, account: Account, id: string): Static<typeof BatchBrief> | Refusal {
	const found = rowsIn(house, account, id);
	if (isRefusal(found)) return found;
	const { name, template, going, stopped } = found.batch;
	return { id, name, template, going, stopped, counts: found.counts };
}

const then = ({ house, account, part }: Call, result: object | Refusal | null | void) =>
	isRefusal(result) ? result : stateOf(house, account, part['batch']!);

/** What is done with a batch as a whole. */
const DEEDS: Record<
	string,
	[does: string, deed: (house: House, account: Account, id: string) => object | null | void]
> = {
	run: ['Send what is ready: what goes is what the rows say now', runBatch],
	pause: ['Let it rest', rest],
	on: ['Go on where it was paused', goOn],
	stop: ['Stop it; what has not gone can be sent again', (house, _account, id) => stopRun(house, { batch: id })]
};
function rest(house: House, _account: Account, id: string) {
	return pauseRun(house, id);
}

export const batches = [
	operation({
		method: 'get',
		path: '/batches',
		right: 'look',
		does: 'Batches of the account, the newest first',
		gives: pageOf(
			Type.Object(
				{ id: Id, name: Type.String(), template: Type.String(), rows: Type.Integer(), gone: Type.Integer() },
				strict
			)
		),
		do: ({ house, account }) => ({
			items: listed(house, account).map(({ id, name, title, rows, gone }) => ({
				id,
				name,
				template: title,
				rows,
				gone
			})),
			next: null
		})
	}),
	operation({
		method: 'post',
		path: '/batches',
		right: 'prepare',
		does: 'A sheet for a template: judged, and nothing sent yet',
		more: 'XLSX, or CSV in any encoding and with any separator. Columns are matched by their headings.',
		query: Type.Object({ template: Id, name: Line(200) }, strict),
		file: SHEET,
		gives: BatchBrief,
		status: 201,
		do: async ({ house, account, query, body }) => {
			const made = await newBatch(house, account, query.template, query.name, body);
			return isRefusal(made) ? made : stateOf(house, account, made.id);
		}
	}),
	operation({
		method: 'get',
		path: '/batches/{batch}',
		right: 'look',
		of: see,
		does: 'How a batch stands',
		gives: BatchBrief,
		do: (call) => then(call, null)
	}),
	operation({
		method: 'get',
		path: '/batches/{batch}/rows',
		right: 'look',
		of: see,
		does: 'Its rows, and what becomes of each',
		query: Type.Object(
			{
				show: Type.Optional(oneOf(['all', 'ready', 'twice', 'faulty', 'left out', 'gone', 'have', 'out'] as const)),
				after: After
			},
			strict
		),
		gives: pageOf(BatchRow),
		do: ({ house, account, part, query }) => {
			const from = placeOf(query.after);
			if (isRefusal(from)) return from;
			const asked = new URLSearchParams({ show: query.show ?? 'all', ...(from && { after: String(from.n) }) });
			const found = rowsIn(house, account, part['batch']!, asked);
			if (isRefusal(found)) return found;
			return {
				items: found.rows.map(({ line, is, said, cells, packet, since }) => ({
					line,
					is,
					says: said,
					cells,
					packet,
					since
				})),
				next: cursorOf(found.next)
			};
		}
	}),
	operation({
		method: 'put',
		path: '/batches/{batch}/sheet',
		right: 'prepare',
		of: change,
		does: 'A newer sheet in the place of the one before',
		more: 'Who has had theirs is known by address, and left out; only new rows go when it is run; of a batch that stands open, at once.',
		file: SHEET,
		gives: BatchBrief,
		do: async (call) => then(call, await takeSheet(call.house, call.account, call.part['batch']!, call.body))
	}),
	operation({
		method: 'get',
		path: '/batches/{batch}/sheet',
		right: 'look',
		of: see,
		does: 'The sheet back, with how each row stands',
		gives: { file: [BOOK, 'text/csv'] },
		do: async ({ house, account, part }) => {
			const sheet = await sheetBack(house, account, part['batch']!);
			return isRefusal(sheet) ? sheet : new FileAnswer(sheet.bytes, sheet.media, sheet.name);
		}
	}),
	operation({
		method: 'put',
		path: '/batches/{batch}/documents',
		right: 'prepare',
		of: change,
		does: 'Documents that rows have instead of the template’s first one: a ZIP of PDF and Word files',
		more: 'A column names them. They are read and laid under its fields one after the other; rows whose fields are in doubt say so.',
		file: { most: 50 * 1024 * 1024, takes: ['application/zip'] },
		gives: BatchBrief,
		do: async (call) =>
			then(
				call,
				await addDocuments(call.house, call.account, call.part['batch']!, [{ name: 'documents.zip', bytes: call.body }])
			)
	}),
	operation({
		method: 'put',
		path: '/batches/{batch}/filter',
		right: 'prepare',
		of: change,
		does: 'Only rows where a rule over the columns holds',
		body: Type.Object({ filter: Type.String({ maxLength: 2000 }) }, strict),
		gives: BatchBrief,
		do: (call) => then(call, settle(call.house, call.part['batch']!, { filter: call.body.filter }))
	}),
	...Object.entries(DEEDS).map(([name, [does, deed]]) =>
		operation({
			method: 'post',
			path: `/batches/{batch}/${name}`,
			right: 'send',
			of: change,
			does,
			gives: BatchBrief,
			do: (call) => then(call, deed(call.house, call.account, call.part['batch']!))
		})
	),
	operation({
		method: 'post',
		path: '/batches/{batch}/remind',
		right: 'send',
		of: change,
		does: 'Remind all who haven’t, each at most once an hour',
		gives: Done,
		status: 202,
		do: ({ house, account, part }) => {
			const asked = forAllOut(house, account, part['batch']!, 'remind');
			return isRefusal(asked) ? asked : DONE;
		}
	}),
	operation({
		method: 'post',
		path: '/batches/{batch}/withdraw',
		right: 'send',
		of: change,
		does: 'Withdraw what is left of it',
		body: Type.Object({ reason: Reason }, strict),
		gives: Done,
		status: 202,
		do: ({ house, account, part, body }) => {
			if (body.reason.trim() === '')
				return refuse('reason-missing', 'Say why: those who have had it are told.', 'reason');
			const asked = forAllOut(house, account, part['batch']!, 'withdraw', body.reason);
			return isRefusal(asked) ? asked : DONE;
		}
	})
];
