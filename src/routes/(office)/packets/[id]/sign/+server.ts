import { redirect } from '@sveltejs/kit';
import { house } from '$lib/server';
import { ownLink } from '$lib/server/packets/office';
import { accountIn, orError } from '$lib/server/web';

export const POST = ({ params, locals }) =>
	redirect(303, `/s/${orError(ownLink(house(), accountIn(locals), params.id))}`);
