import { error } from '@sveltejs/kit';
import { house } from '$lib/server';
import { shownPicture } from '$lib/server/identity';
import { accountIn } from '$lib/server/web';

/** A picture, for whoever asked to see them a while ago; kept by no browser. */
export const GET = ({ params, locals, url }) => {
	const pass = url.searchParams.get('pass') ?? '';
	const bytes = shownPicture(house(), accountIn(locals), params.id, params.try, params.side, pass);
	if (!bytes) error(404, { message: 'That picture is not shown now. Ask to see the pictures again.' });
	return new Response(new Uint8Array(bytes), {
		headers: { 'content-type': 'image/jpeg', 'cache-control': 'no-store' }
	});
};
