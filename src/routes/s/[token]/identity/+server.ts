import { isRefusal, refuse } from '$lib/core/refusal';
import { SIDES, type Side } from '$lib/core/identity/asked';
import { house } from '$lib/server';
import { arrived, ownBytes } from '$lib/server/arriving';
import { bodyOf } from '$lib/server/bodies';
import { addIdentityPicture, handInIdentity } from '$lib/server/identity';
import { count } from '$lib/server/limits';
import { handInBorder } from '$lib/server/signing';
import { doerOf, visitorOf } from '$lib/server/visitor';
import { answer } from '$lib/server/web';

/** A picture of one side: its bytes are the body, `?side=` says of which. */
export const POST = async ({ params, locals, request, url }) => {
	const visitor = await visitorOf(params.token, locals);
	if (isRefusal(visitor)) return answer(visitor);
	if (!(await count('upload', params.token)))
		return answer(refuse('too-often', 'Too many pictures in a short time. Wait ten minutes, then try again.'));
	const side = SIDES.find((one) => one === url.searchParams.get('side')) as Side | undefined;
	if (!side) return answer(refuse('nothing-to-show', 'Nothing of that kind is asked of you now.'));
	const body = await arrived(house(), request);
	return answer(await body(async (whole) => addIdentityPicture(house(), visitor, side, ownBytes(await whole.bytes()))));
};

/** The pictures go to the desk. */
export const PUT = async ({ params, locals, request }) => {
	const visitor = await doerOf(params.token, locals, 'deed');
	if (isRefusal(visitor)) return answer(visitor);
	const body = handInBorder(await bodyOf(request));
	return answer(isRefusal(body) ? body : handInIdentity(house(), visitor, body.kind, locals.from));
};
