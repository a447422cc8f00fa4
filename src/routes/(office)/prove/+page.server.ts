import { fail, redirect } from '@sveltejs/kit';
import { house } from '$lib/server';
import { factorsOf, passkeysPossible, proveAgain } from '$lib/server/accounts';
import { formIn } from '$lib/server/forms';
import { wantedPage } from '$lib/server/sign-in-cookie';
import { accountIn, statusOf } from '$lib/server/web';

export const load = ({ locals, url }) => {
	const me = accountIn(locals);
	const factors = factorsOf(house().db, me.id);
	return {
		name: me.name,
		codes: factors.codes,
		passkeys: factors.passkeys > 0 && passkeysPossible(house()),
		directory: house().config.directory?.name ?? null,
		to: wantedPage(url.searchParams.get('to'))
	};
};

export const actions = {
	default: async ({ request, locals, url }) => {
		const form = await formIn(request);
		const by = { password: form.raw('password'), code: form.text('code', 40) };
		const no = await proveAgain(house(), locals.token, accountIn(locals), locals.from, by);
		if (no) return fail(statusOf(no), { say: no.say });
		redirect(303, wantedPage(url.searchParams.get('to')));
	}
};
