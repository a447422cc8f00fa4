import { isRefusal } from '$lib/core/refusal';
import { bodyOf } from '$lib/server/bodies';
import { languageBorder } from '$lib/server/signing';
import { answer } from '$lib/server/web';

/** The language of the page is chosen; the browser remembers it. */
export const POST = async ({ request, cookies, url }) => {
	const body = languageBorder(await bodyOf(request));
	if (isRefusal(body)) return answer(body);
	for (const path of ['/i', '/s'])
		cookies.set('pellum_language', body.language, {
			path,
			httpOnly: true,
			// within a page of another site only a cookie of that place comes back (CHIPS), and only under https
			...(url.protocol === 'https:'
				? { sameSite: 'none' as const, secure: true, partitioned: true }
				: { sameSite: 'lax' as const, secure: false }),
			maxAge: 365 * 86_400
		});
	return answer({ done: true });
};
