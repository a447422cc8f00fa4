import { error } from '@sveltejs/kit';
import { house } from '$lib/server';
import { readBlob } from '$lib/server/blobs';
import { fileResponse } from '$lib/server/web';

export const GET = ({ params }) => {
	const blob = readBlob(house().db, params.digest);
	if (blob?.media !== 'image/png') error(404, { message: 'There is no such picture.' });
	return fileResponse(blob.bytes, blob.media);
};
