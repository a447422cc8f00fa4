import { fail, redirect } from '@sveltejs/kit';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { factorsOf, finishSignIn, passkeysPossible } from '$lib/server/accounts';
import { formIn } from '$lib/server/forms';
import { setSession, wantedPage } from '$lib/server/sign-in-cookie';
import { statusOf } from '$lib/server/web';

export const load = ({ locals, url }) => {
	if (locals.session?.wants !== 'second') redirect(303, locals.account ? '/desk' : '/sign-in');
	const factors = factorsOf(house().db, locals.session.account.id);
	return {
		name: locals.session.account.name,
		passkeys: factors.passkeys > 0 && passkeysPossible(house()),
		codes: factors.codes,
		to: url.searchParams.get('to') ?? ''
	};
};

export const actions = {
	default: async ({ request, cookies, locals, url }) => {
		if (locals.session?.wants !== 'second') redirect(303, '/sign-in');
		const code = (await formIn(request)).text('code', 40);
		const token = await finishSignIn(house(), locals.token, locals.session.account, locals.from, { code });
		if (isRefusal(token)) return fail(statusOf(token), { say: token.say });
		setSession(cookies, url, token);
		redirect(303, wantedPage(url.searchParams.get('to')));
	}
};
