import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { askWording, wordingBorder } from '$lib/server/signing';
import { doerOf } from '$lib/server/visitor';
import { bodyOf } from '$lib/server/bodies';
import { answer } from '$lib/server/web';

export const POST = async ({ params, locals, request }) => {
	const visitor = await doerOf(params.token, locals, 'deed');
	if (isRefusal(visitor)) return answer(visitor);
	const body = wordingBorder(await bodyOf(request));
	if (isRefusal(body)) return answer(body);
	const done = askWording(house(), visitor, body, locals.from);
	return answer(isRefusal(done) ? done : { done: true });
};
