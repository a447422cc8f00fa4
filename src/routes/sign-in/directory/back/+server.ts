import { error, redirect } from '@sveltejs/kit';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { fromDirectory } from '$lib/server/accounts';
import { setSession } from '$lib/server/sign-in-cookie';
import { statusOf } from '$lib/server/web';

export const GET = async ({ cookies, locals, url }) => {
	const state = cookies.get('pellum_directory') ?? '';
	cookies.delete('pellum_directory', { path: '/sign-in/directory' });
	const own = locals.account ? { token: locals.token, account: locals.account.id } : null;
	const there = await fromDirectory(house(), url, state, locals.from, own);
	if (isRefusal(there)) error(statusOf(there), { message: there.say, code: there.code });
	setSession(cookies, url, there.token);
	redirect(303, there.to);
};
