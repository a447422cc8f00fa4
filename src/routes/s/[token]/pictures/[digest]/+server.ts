import { error } from '@sveltejs/kit';
import { house } from '$lib/server';
import { readBlob } from '$lib/server/blobs';
import { maySeePicture } from '$lib/server/signing';
import { visitorOrError } from '$lib/server/visitor';
import { fileResponse } from '$lib/server/web';

export const GET = async ({ params, locals }) => {
	const visitor = await visitorOrError(params.token, locals);
	const blob = maySeePicture(house(), visitor, params.digest) ? readBlob(house().db, params.digest) : undefined;
	if (!blob) error(404, { message: 'There is no such picture.' });
	return fileResponse(blob.bytes, blob.media);
};
