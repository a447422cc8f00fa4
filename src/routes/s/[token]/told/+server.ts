import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { noteShown } from '$lib/server/signing';
import { doerOf } from '$lib/server/visitor';
import { answer } from '$lib/server/web';

/** They have seen what was corrected since they opened it, and go on. */
export const POST = async ({ params, locals }) => {
	const visitor = await doerOf(params.token, locals, 'deed');
	if (isRefusal(visitor)) return answer(visitor);
	const done = noteShown(house(), visitor, locals.from);
	return answer(isRefusal(done) ? done : { done: true });
};
