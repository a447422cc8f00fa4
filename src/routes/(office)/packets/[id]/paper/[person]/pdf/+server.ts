import { house } from '$lib/server';
import { fetchPaperToPost } from '$lib/server/paper';
import { accountIn, fileResponse, orError } from '$lib/server/web';

/** The pages for somebody who gets them by post: in the record as fetched for them. */
export const POST = async ({ params, locals }) => {
	const made = orError(await fetchPaperToPost(house(), accountIn(locals), params.id, params.person));
	return fileResponse(made.bytes, 'application/pdf', made.name);
};
