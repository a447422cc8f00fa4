import { error } from '@sveltejs/kit';
import { house } from '$lib/server';
import { readBlob } from '$lib/server/blobs';
import { signingView } from '$lib/server/signing';
import { visitorOrError } from '$lib/server/visitor';
import { fileResponse } from '$lib/server/web';

/** A document as this person may see it now; `?name=1` for a download before signing. */
export const GET = async ({ params, locals, url }) => {
	const view = signingView(house(), await visitorOrError(params.token, locals));
	const open = 'papers' in view ? [...view.papers, ...view.attachments] : [];
	const paper = open.find((p) => p.id === params.paper);
	const blob = paper && readBlob(house().db, paper.digest);
	if (!blob) error(404, { message: 'This document is not open to you.' });
	return fileResponse(blob.bytes, blob.media, url.searchParams.has('name') ? `${paper.name}.pdf` : undefined);
};
