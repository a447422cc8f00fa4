import { fail, redirect } from '@sveltejs/kit';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { hasAccounts, passkeysPossible, sessionOf, signIn } from '$lib/server/accounts';
import { formIn } from '$lib/server/forms';
import { organisation } from '$lib/server/settings';
import { setSession, wantedPage } from '$lib/server/sign-in-cookie';
import { statusOf } from '$lib/server/web';

export const load = ({ locals, url }) => {
	if (!hasAccounts(house())) redirect(303, '/set-up');
	if (locals.account) redirect(303, '/desk');
	return {
		organisation: organisation(house().db).name,
		directory: house().config.directory?.name ?? null,
		passkeys: passkeysPossible(house()),
		to: url.searchParams.get('to') ?? '',
		chosen: url.searchParams.has('chosen')
	};
};

export const actions = {
	default: async ({ request, cookies, locals, url }) => {
		const form = await formIn(request);
		const email = form.text('email', 254);
		const token = await signIn(house(), email, form.raw('password'), locals.from);
		if (isRefusal(token)) return fail(statusOf(token), { email, say: token.say });
		setSession(cookies, url, token);
		const to = wantedPage(url.searchParams.get('to'));
		const second = sessionOf(house(), token)?.wants === 'second';
		redirect(303, second ? `/sign-in/second?to=${encodeURIComponent(to)}` : to);
	}
};
