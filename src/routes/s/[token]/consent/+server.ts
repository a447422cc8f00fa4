import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { openAndConsent } from '$lib/server/signing';
import { doerOf, languageOf } from '$lib/server/visitor';
import { answer } from '$lib/server/web';

export const POST = async ({ params, locals }) => {
	const visitor = await doerOf(params.token, locals, 'deed');
	if (isRefusal(visitor)) return answer(visitor);
	const done = openAndConsent(house(), visitor, locals.from, languageOf(visitor, locals));
	return answer(isRefusal(done) ? done : { done: true });
};
