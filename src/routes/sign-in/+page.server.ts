import { fail, redirect } from '@sveltejs/kit';
import { house } from '$lib/server';
import { hasAccounts, signIn } from '$lib/server/accounts';
import { formIn } from '$lib/server/bodies';
import { count, forgive, isOverLimit } from '$lib/server/limits';
import { organisation } from '$lib/server/settings';

export const load = ({ locals }) => {
	if (!hasAccounts(house())) redirect(303, '/set-up');
	if (locals.account) redirect(303, '/desk');
	return { organisation: organisation(house().db).name };
};

export const actions = {
	default: async ({ request, cookies, locals, url }) => {
		const form = await formIn(request);
		const email = form.text('email', 254);
		const password = form.raw('password');
		const who = email.trim().toLowerCase();
		if ((await isOverLimit('account', who)) || (await isOverLimit('signIn', locals.from.address)))
			return fail(429, { email, say: 'Too many tries. Wait a quarter of an hour, then try again.' });
		const token = await signIn(house(), email, password);
		if (token === null) {
			await count('account', who);
			await count('signIn', locals.from.address);
			return fail(401, { email, say: 'Address and password do not go together. Check both.' });
		}
		await forgive('account', who);
		cookies.set('pellum_session', token, {
			path: '/',
			httpOnly: true,
			sameSite: 'lax',
			secure: url.protocol === 'https:',
			maxAge: 14 * 86_400
		});
		const to = url.searchParams.get('to') ?? '';
		redirect(303, /^\/(?![/\\])[\w/-]*$/.test(to) ? to : '/desk');
	}
};
