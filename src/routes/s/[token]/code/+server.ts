import { isRefusal, refuse } from '$lib/core/refusal';
import { house } from '$lib/server';
import { count } from '$lib/server/limits';
import { codeBorder, enterCode, sendCode } from '$lib/server/signing';
import { visitorOf } from '$lib/server/visitor';
import { bodyOf } from '$lib/server/bodies';
import { answer } from '$lib/server/web';

/** Asks for a one-time code to be sent. */
export const PUT = async ({ params, locals }) => {
	const visitor = await visitorOf(params.token, locals);
	if (isRefusal(visitor)) return answer(visitor);
	if (!(await count('code', params.token)))
		return answer(refuse('too-often', 'That was too often. Wait ten minutes, then try again.'));
	return answer(sendCode(house(), visitor));
};

/** A code is entered; a right one opens the page in this browser. */
export const POST = async ({ params, locals, request, cookies, url }) => {
	const visitor = await visitorOf(params.token, locals);
	if (isRefusal(visitor)) return answer(visitor);
	const body = codeBorder(await bodyOf(request));
	if (isRefusal(body)) return answer(body);
	const done = enterCode(house(), visitor, body.code, locals.from);
	if (isRefusal(done)) return answer(done);
	cookies.set('pellum_pass', done.pass, {
		path: `/s/${params.token}`,
		httpOnly: true,
		sameSite: 'lax',
		secure: url.protocol === 'https:',
		maxAge: 12 * 3600
	});
	return answer({ done: true });
};
