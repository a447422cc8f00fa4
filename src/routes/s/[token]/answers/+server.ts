import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { finishBorder, saveAnswers } from '$lib/server/signing';
import { doerOf } from '$lib/server/visitor';
import { bodyOf } from '$lib/server/bodies';
import { answer } from '$lib/server/web';

/** Keeps what was entered so far. */
export const PUT = async ({ params, locals, request }) => {
	const visitor = await doerOf(params.token, locals, 'save');
	if (isRefusal(visitor)) return answer(visitor);
	const body = finishBorder(await bodyOf(request));
	return answer(isRefusal(body) ? body : saveAnswers(house(), visitor, body.answers, locals.from));
};
