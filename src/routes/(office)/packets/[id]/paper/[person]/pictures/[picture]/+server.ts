import { error } from '@sveltejs/kit';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { officeBringer, returnPicture, takeOut } from '$lib/server/paper';
import { accountIn, answer } from '$lib/server/web';

/** A page as it went out (`out-0`), or as it came back. */
export const GET = async ({ params, locals }) => {
	const picture = await returnPicture(house(), accountIn(locals), params.id, params.person, params.picture);
	if (!picture) error(404, { message: 'There is no such page here.' });
	return new Response(new Uint8Array(picture.bytes), {
		headers: { 'content-type': picture.media, 'cache-control': 'private, max-age=600' }
	});
};

export const DELETE = ({ params, locals }) => {
	const bringer = officeBringer(house(), accountIn(locals), params.id, params.person);
	return answer(isRefusal(bringer) ? bringer : takeOut(house(), bringer, params.picture));
};
