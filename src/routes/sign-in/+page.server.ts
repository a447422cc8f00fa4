import { fail, redirect } from '@sveltejs/kit';
import { house } from '$lib/server';
import { hasAccounts, signIn } from '$lib/server/accounts';
import { formIn } from '$lib/server/forms';
import { count, forgive, giveBack } from '$lib/server/limits';
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
		const { address } = locals.from;
		const tries = [
			['account', `${who} ${address}`],
			['everywhere', who],
			['signIn', address]
		] as const;
		// counted before the password is judged: of a thousand tries at once, ten are judged
		for (const [limit, by] of tries)
			if (!(await count(limit, by)))
				return fail(429, { email, say: 'Too many tries. Wait a quarter of an hour, then try again.' });
		const token = await signIn(house(), email, password);
		if (token === null) return fail(401, { email, say: 'Address and password do not go together. Check both.' });
		for (const [limit, by] of tries) await giveBack(limit, by);
		if (token === 'busy')
			return fail(503, { email, say: 'Many are signing in at the moment. Try again in a few seconds.' });
		await forgive('account', `${who} ${address}`);
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
