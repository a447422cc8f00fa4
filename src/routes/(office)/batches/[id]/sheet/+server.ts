import { house } from '$lib/server';
import { readBatch, sheetBack } from '$lib/server/batches';
import { accountIn, fileResponse, orError } from '$lib/server/web';

/** The sheet back as CSV, with how each row stands and where its packet is. */
export const GET = ({ params, locals }) => {
	const { name } = orError(readBatch(house(), params.id));
	const text = orError(sheetBack(house(), accountIn(locals), params.id));
	// the mark by which spreadsheets know UTF-8
	return fileResponse(new TextEncoder().encode(`\uFEFF${text}`), 'text/csv; charset=utf-8', name);
};
