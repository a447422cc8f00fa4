import { redirect } from '@sveltejs/kit';
import { house } from '$lib/server';
import { templateFromPacket } from '$lib/server/templates';
import { accountIn, orError } from '$lib/server/web';

/** A template made of a packet that was sent, opened on the Bench. */
export const POST = ({ params, locals }) =>
	redirect(303, `/bench/${orError(templateFromPacket(house(), accountIn(locals), params.id)).id}`);
