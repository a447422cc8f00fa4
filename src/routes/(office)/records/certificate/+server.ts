import { error } from '@sveltejs/kit';
import { house } from '$lib/server';
import { readBlob } from '$lib/server/blobs';
import { disposalOf } from '$lib/server/keeping';
import { numberOf } from '$lib/server/office-record';
import { fileResponse } from '$lib/server/web';

/** A certificate of disposal, sealed; `n` is its number. */
export const GET = ({ url }) => {
	const disposal = disposalOf(house().db, Number(url.searchParams.get('n')) || 0);
	const blob = disposal?.certificate ? readBlob(house().db, disposal.certificate) : undefined;
	if (!disposal || !blob) error(404, { message: 'There is no such certificate, or it is just being made.' });
	return fileResponse(blob.bytes, blob.media, `Certificate of disposal ${numberOf(disposal.number)}.pdf`);
};
