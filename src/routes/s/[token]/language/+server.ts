import { isRefusal } from '$lib/core/refusal';
import { languageBorder } from '$lib/server/signing';
import { visitorOf } from '$lib/server/visitor';
import { bodyOf } from '$lib/server/bodies';
import { answer } from '$lib/server/web';

/** The language of the page is chosen; the browser remembers it for all its signing pages. */
export const POST = async ({ params, locals, request, cookies, url }) => {
	const visitor = await visitorOf(params.token, locals);
	if (isRefusal(visitor)) return answer(visitor);
	const body = languageBorder(await bodyOf(request));
	if (isRefusal(body)) return answer(body);
	cookies.set('pellum_language', body.language, {
		path: '/s',
		httpOnly: true,
		sameSite: 'lax',
		secure: url.protocol === 'https:',
		maxAge: 365 * 86_400
	});
	return answer({ done: true });
};
