import { error, json } from '@sveltejs/kit';
import { house } from '$lib/server';
import { readingOf } from '$lib/server/papers';
import { signingView } from '$lib/server/signing';
import { visitorOrError } from '$lib/server/visitor';

/** The words of a document that this person may see now, for reading it as text. */
export const GET = async ({ params, locals }) => {
	const view = signingView(house(), await visitorOrError(params.token, locals));
	const paper = 'papers' in view ? view.papers.find((p) => p.id === params.paper) : undefined;
	const reading = paper && (await readingOf(house(), paper.digest));
	if (!reading) error(404, { message: 'This document is not open to you.' });
	return json({ words: reading.words, read: reading.scans?.read.map(({ page }) => page) ?? [] });
};
