import { error } from '@sveltejs/kit';
import { house } from '$lib/server';
import { journalAsCsv, journalAsPdf, notaryById } from '$lib/server/notary';
import { fileResponse } from '$lib/server/web';
import { standInsFor } from '$lib/server/stand-ins';

/** The whole journal of a notary, as CSV or as PDF. */
export const GET = async ({ params, locals }) => {
	standInsFor(locals);
	const notary = notaryById(house().db, params.id);
	if (!notary || !['csv', 'pdf'].includes(params.as)) error(404, { message: 'There is no such journal.' });
	return params.as === 'csv'
		? fileResponse(Buffer.from(journalAsCsv(house().db, notary.id)), 'text/csv', `Journal ${notary.name}.csv`)
		: fileResponse(await journalAsPdf(house(), notary.id), 'application/pdf', `Journal ${notary.name}.pdf`);
};
