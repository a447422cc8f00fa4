import { house } from '$lib/server';
import { whatHolds } from '$lib/server/amending';
import { accountIn, fileResponse, orError } from '$lib/server/web';

/** What holds now of what this packet began, as one document to be read. */
export const GET = async ({ params, locals }) => {
	const { bytes, name } = orError(await whatHolds(house(), accountIn(locals), params.id));
	return fileResponse(bytes, 'application/pdf', name);
};
