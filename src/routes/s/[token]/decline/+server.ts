import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { decline, declineBorder } from '$lib/server/signing';
import { doerOf } from '$lib/server/visitor';
import { bodyOf } from '$lib/server/bodies';
import { answer } from '$lib/server/web';

export const POST = async ({ params, locals, request }) => {
	const visitor = await doerOf(params.token, locals, 'deed');
	if (isRefusal(visitor)) return answer(visitor);
	const body = declineBorder(await bodyOf(request));
	if (isRefusal(body)) return answer(body);
	const done = decline(house(), visitor, body.reason, locals.from);
	return answer(isRefusal(done) ? done : { done: true });
};
