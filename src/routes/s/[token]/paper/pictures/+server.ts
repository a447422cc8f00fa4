import { isRefusal, refuse } from '$lib/core/refusal';
import { house } from '$lib/server';
import { arrived, ownBytes } from '$lib/server/arriving';
import { count } from '$lib/server/limits';
import { addReturned, bringerOf, handInReturn } from '$lib/server/paper';
import { doerOf, visitorOf } from '$lib/server/visitor';
import { answer } from '$lib/server/web';

/** A picture or PDF of pages that came back: its bytes are the body. */
export const POST = async ({ params, locals, request, url }) => {
	const visitor = await visitorOf(params.token, locals);
	if (isRefusal(visitor)) return answer(visitor);
	if (!(await count('pages', params.token)))
		return answer(refuse('too-often', 'Too many pictures in a short time. Wait ten minutes, then try again.'));
	const bringer = bringerOf(visitor, locals.from);
	if (isRefusal(bringer)) return answer(bringer);
	const body = await arrived(house(), request);
	const name = url.searchParams.get('name') ?? '';
	return answer(await body(async (whole) => addReturned(house(), bringer, name, ownBytes(await whole.bytes()))));
};

/** All that lies there is handed in. */
export const PUT = async ({ params, locals }) => {
	const visitor = await doerOf(params.token, locals, 'deed');
	if (isRefusal(visitor)) return answer(visitor);
	const bringer = bringerOf(visitor, locals.from);
	return answer(isRefusal(bringer) ? bringer : handInReturn(house(), bringer));
};
