import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { stumbled } from '$lib/server/pace';
import { stumbledBorder } from '$lib/server/signing';
import { doerOf } from '$lib/server/visitor';
import { bodyOf } from '$lib/server/bodies';
import { answer } from '$lib/server/web';

/** Where somebody stumbled, without what they typed; sent when the page is left. */
export const POST = async ({ params, locals, request }) => {
	const visitor = await doerOf(params.token, locals, 'deed');
	if (isRefusal(visitor)) return answer(visitor);
	const body = stumbledBorder(await bodyOf(request));
	if (isRefusal(body)) return answer(body);
	stumbled(house(), visitor, body);
	return answer({ done: true });
};
