import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { bodyOf } from '$lib/server/bodies';
import { doInRoom, roomBorder, type RoomDeed } from '$lib/server/notary';
import { doerOf } from '$lib/server/visitor';
import { answer } from '$lib/server/web';

/** Whatever is done in a room, by a person or by the notary. */
export const POST = async ({ params, locals, request }) => {
	const visitor = await doerOf(params.token, locals, 'save');
	if (isRefusal(visitor)) return answer(visitor);
	const body = roomBorder(await bodyOf(request));
	if (isRefusal(body)) return answer(body);
	const done = await doInRoom(house(), visitor, body as RoomDeed, locals.from);
	return answer(done && isRefusal(done) ? done : { done: true });
};
