import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { guestBorder, handDevice } from '$lib/server/signing';
import { doerOf } from '$lib/server/visitor';
import { bodyOf } from '$lib/server/bodies';
import { answer } from '$lib/server/web';

/** The host hands the device to a guest; the answer is the guest's own link. */
export const POST = async ({ params, locals, request }) => {
	const visitor = await doerOf(params.token, locals, 'deed');
	if (isRefusal(visitor)) return answer(visitor);
	const body = guestBorder(await bodyOf(request));
	return answer(isRefusal(body) ? body : handDevice(house(), visitor, body.guest, locals.from));
};
