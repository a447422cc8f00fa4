import { json } from '@sveltejs/kit';
import { house } from '$lib/server';
import { batchRows, readBatch, verdictsOf } from '$lib/server/batches';
import { accountIn, orError } from '$lib/server/web';

/** The next page of a batch's rows. */
export const GET = ({ params, locals, url }) => {
	const batch = orError(readBatch(house(), params.id));
	const { verdicts } = orError(verdictsOf(house(), accountIn(locals), batch));
	const { rows, next } = batchRows(house(), batch, verdicts, url.searchParams);
	return json({ rows, next });
};
