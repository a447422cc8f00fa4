import { house } from '$lib/server';
import { picturesZip } from '$lib/server/identity';
import { accountIn, fileResponse, orError } from '$lib/server/web';

/** All pictures of a person, with what was found: in the record as taken. */
export const GET = ({ params, locals }) => {
	const zip = orError(picturesZip(house(), accountIn(locals), params.id, params.person));
	return fileResponse(zip.bytes, 'application/zip', zip.name);
};
