import { error } from '@sveltejs/kit';
import { house } from '$lib/server';
import { readBlob } from '$lib/server/blobs';
import { organisation } from '$lib/server/settings';
import { fileResponse } from '$lib/server/web';

export const GET = () => {
	const { logo } = organisation(house().db);
	const blob = logo ? readBlob(house().db, logo) : undefined;
	if (!blob) error(404, { message: 'There is no logo.' });
	return fileResponse(blob.bytes, blob.media);
};
