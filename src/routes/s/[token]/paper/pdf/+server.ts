import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { fetchPaper } from '$lib/server/paper';
import { doerOf, languageOf } from '$lib/server/visitor';
import { answer, fileResponse } from '$lib/server/web';

/** The pages to be signed in ink; that they were fetched is in the record. */
export const POST = async ({ params, locals }) => {
	const visitor = await doerOf(params.token, locals, 'deed');
	if (isRefusal(visitor)) return answer(visitor);
	const made = await fetchPaper(house(), visitor, languageOf(visitor, locals), locals.from);
	return isRefusal(made) ? answer(made) : fileResponse(made.bytes, 'application/pdf', made.name);
};
