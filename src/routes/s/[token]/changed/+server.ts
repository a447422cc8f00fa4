import { error, json } from '@sveltejs/kit';
import { house } from '$lib/server';
import { changedWords, signingView } from '$lib/server/signing';
import { visitorOrError } from '$lib/server/visitor';

/** The words that are others than when this person opened it before. */
export const GET = async ({ params, locals }) => {
	const visitor = await visitorOrError(params.token, locals);
	if (!('papers' in signingView(house(), visitor))) error(404, { message: 'This document is not open to you.' });
	return json(changedWords(house(), visitor));
};
