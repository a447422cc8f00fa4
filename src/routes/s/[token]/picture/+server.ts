import { isRefusal, refuse } from '$lib/core/refusal';
import { house } from '$lib/server';
import { arrived, ownBytes } from '$lib/server/arriving';
import { count } from '$lib/server/limits';
import { addMarkPicture } from '$lib/server/signing';
import { visitorOf } from '$lib/server/visitor';
import { answer } from '$lib/server/web';

/** A picture to sign with: its bytes are the body. */
export const POST = async ({ params, locals, request }) => {
	const visitor = await visitorOf(params.token, locals);
	if (isRefusal(visitor)) return answer(visitor);
	if (!(await count('upload', params.token)))
		return answer(refuse('too-often', 'Too many pictures in a short time. Wait ten minutes, then try again.'));
	const body = await arrived(house(), request);
	return answer(await body(async (whole) => addMarkPicture(house(), visitor, ownBytes(await whole.bytes()))));
};
