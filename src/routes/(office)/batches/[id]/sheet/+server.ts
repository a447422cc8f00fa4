import { house } from '$lib/server';
import { sheetBack } from '$lib/server/batches';
import { accountIn, fileResponse, orError } from '$lib/server/web';

/** The sheet back: the same file, with how each row stands and where its packet is. */
export const GET = async ({ params, locals }) => {
	const { bytes, media, name } = orError(await sheetBack(house(), accountIn(locals), params.id));
	return fileResponse(bytes, media, name);
};
