import { error } from '@sveltejs/kit';
import { house } from '$lib/server';
import { journalAsCsv, journalAsPdf, notaryById } from '$lib/server/notary';
import { fileResponse } from '$lib/server/web';

/** The whole journal of a notary, as CSV or as PDF. */
export const GET = async ({ params, locals }) => {
	if (!house().config.demo && locals.account?.level !== 'owner')
		error(403, { message: 'Outside the demo only an owner sees the stand-ins.' });
	const notary = notaryById(house().db, params.id);
	if (!notary || !['csv', 'pdf'].includes(params.as)) error(404, { message: 'There is no such journal.' });
	return params.as === 'csv'
		? fileResponse(Buffer.from(journalAsCsv(house().db, notary.id)), 'text/csv', `Journal ${notary.name}.csv`)
		: fileResponse(await journalAsPdf(house(), notary.id), 'application/pdf', `Journal ${notary.name}.pdf`);
};
