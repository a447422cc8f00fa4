import { redirect } from '@sveltejs/kit';
import { house } from '$lib/server';
import { templateFromDraft } from '$lib/server/templates';
import { accountIn, orError } from '$lib/server/web';

/** A template made of this draft, opened on the Bench; the draft stays as it is. */
export const POST = ({ params, locals }) =>
	redirect(303, `/bench/${orError(templateFromDraft(house(), accountIn(locals), params.id)).id}`);
