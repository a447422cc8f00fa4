import type { Cookies } from '@sveltejs/kit';
import { house } from './index';
import { safety } from './accounts';

/** The cookie that a session is known by: for this site only, out of reach of scripts. */
export function setSession(cookies: Cookies, url: URL, token: string): void {
	cookies.set('pellum_session', token, {
		path: '/',
		httpOnly: true,
		sameSite: 'lax',
		secure: url.protocol === 'https:',
		maxAge: safety(house().db).longestDays * 86_400
	});
}

/** Where somebody wanted to go, as long as that is a page of ours. */
export function wantedPage(to: string | null): string {
	return to && /^\/(?![/\\])[\w/-]*$/.test(to) ? to : '/desk';
}
