import { error, json } from '@sveltejs/kit';
import { house } from '$lib/server';
import { consistencyBetween } from '$lib/server/verifying';

/** The proof between any two sizes of the tree (RFC 9162 §2.1.4): hashes alone. */
export const GET = ({ url }) => {
	const found = consistencyBetween(
		house().db,
		Number(url.searchParams.get('from')),
		Number(url.searchParams.get('to'))
	);
	if (!found) error(422, { message: 'Name two sizes of the tree, the smaller one first: ?from=…&to=…' });
	return json(found);
};
