import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { pagesSeen, seenBorder } from '$lib/server/signing';
import { doerOf } from '$lib/server/visitor';
import { bodyOf } from '$lib/server/bodies';
import { answer } from '$lib/server/web';

/** How long pages were in view; sent when the page is left. */
export const POST = async ({ params, locals, request }) => {
	const visitor = await doerOf(params.token, locals, 'deed');
	if (isRefusal(visitor)) return answer(visitor);
	const body = seenBorder(await bodyOf(request));
	if (isRefusal(body)) return answer(body);
	pagesSeen(house(), visitor, body.pages, locals.from);
	return answer({ done: true });
};
