import { house } from '$lib/server';
import { picturesZip } from '$lib/server/identity';
import { accountIn, fileResponse, orError } from '$lib/server/web';

/** All pictures of a person, with what was found: in the record as taken, so that no link from elsewhere may bring it about. */
export const POST = ({ params, locals }) => {
	const zip = orError(picturesZip(house(), accountIn(locals), params.id, params.person));
	return fileResponse(zip.bytes, 'application/zip', zip.name);
};
