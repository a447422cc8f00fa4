import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { bodyOf } from '$lib/server/bodies';
import { answerQuestions } from '$lib/server/identity';
import { questionsBorder } from '$lib/server/signing';
import { doerOf } from '$lib/server/visitor';
import { answer } from '$lib/server/web';

/** Answers to what the office knows: compared, counted, and forgotten. */
export const POST = async ({ params, locals, request }) => {
	const visitor = await doerOf(params.token, locals, 'deed');
	if (isRefusal(visitor)) return answer(visitor);
	const body = questionsBorder(await bodyOf(request));
	return answer(isRefusal(body) ? body : answerQuestions(house(), visitor, body.answers, locals.from));
};
