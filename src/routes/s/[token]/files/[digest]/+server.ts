import { error } from '@sveltejs/kit';
import { house } from '$lib/server';
import { readBlob } from '$lib/server/blobs';
import { fileFor } from '$lib/server/signing';
import { visitorOrError } from '$lib/server/visitor';
import { fileResponse } from '$lib/server/web';

/** A file that was handed in, as a download: it is never shown inside Pellum. */
export const GET = async ({ params, locals }) => {
	const visitor = await visitorOrError(params.token, locals);
	const file = fileFor(house(), visitor, params.digest);
	const blob = file && readBlob(house().db, file.file);
	if (!file || !blob) error(404, { message: 'There is no such file.' });
	return fileResponse(blob.bytes, file.media, file.name);
};
