import { error } from '@sveltejs/kit';
import { house } from '$lib/server';
import { sourcesOf } from '$lib/server/papers';
import { readBlob } from '$lib/server/blobs';
import { fileResponse } from '$lib/server/web';

/** What a document was made from, as it came: `?n=` counts from 0 where it was several pictures. */
export const GET = ({ params, url }) => {
	const source = sourcesOf(house(), params.digest)[Number(url.searchParams.get('n') ?? '0')];
	const file = source && readBlob(house().db, source.digest);
	if (!file) error(404, { message: 'This document came as a PDF, or is not here.' });
	return fileResponse(file.bytes, file.media, source.name);
};
