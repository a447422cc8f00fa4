import { error } from '@sveltejs/kit';
import { house } from '$lib/server';
import { readBlob } from '$lib/server/blobs';
import { isAttachment, isPaper } from '$lib/server/papers';
import { fileResponse } from '$lib/server/web';

export const GET = ({ params }) => {
	const blob =
		isPaper(house(), params.digest) || isAttachment(house(), params.digest)
			? readBlob(house().db, params.digest)
			: undefined;
	if (!blob) error(404, { message: 'There is no such document.' });
	return fileResponse(blob.bytes, blob.media);
};
