import { error, redirect } from '@sveltejs/kit';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { toDirectory } from '$lib/server/accounts';
import { wantedPage } from '$lib/server/sign-in-cookie';
import { statusOf } from '$lib/server/web';

export const GET = async ({ cookies, locals, url }) => {
	const prove = url.searchParams.has('prove') && locals.account !== null;
	const there = await toDirectory(house(), wantedPage(url.searchParams.get('to')), prove);
	if (isRefusal(there)) error(statusOf(there), { message: there.say, code: there.code });
	cookies.set('pellum_directory', there.state, {
		path: '/sign-in/directory',
		httpOnly: true,
		sameSite: 'lax',
		secure: url.protocol === 'https:',
		maxAge: 600
	});
	redirect(303, there.url);
};
