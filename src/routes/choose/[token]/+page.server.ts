import { error, fail, redirect } from '@sveltejs/kit';
import { isRefusal, type Refusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { accountOfLink, chooseByLink } from '$lib/server/accounts';
import { formIn } from '$lib/server/forms';
import { count } from '$lib/server/limits';
import { statusOf } from '$lib/server/web';

/** Links that lead nowhere are counted, so that nobody can try many. */
async function counted<T>(found: T | Refusal, locals: App.Locals): Promise<T | Refusal> {
	if (isRefusal(found) && found.code === 'no-link' && !(await count('link', locals.from.address)))
		error(429, { message: 'Too many links that lead nowhere. Wait ten minutes, then try again.' });
	return found;
}

export const load = async ({ params, locals }) => {
	const found = await counted(accountOfLink(house(), params.token), locals);
	if (isRefusal(found)) error(404, { message: found.say, code: found.code });
	return { name: found.name, email: found.email, purpose: found.purpose };
};

export const actions = {
	default: async ({ request, params, locals, cookies }) => {
		const password = (await formIn(request)).raw('password');
		const done = await counted(await chooseByLink(house(), locals.from.address, params.token, password), locals);
		if (isRefusal(done)) return fail(statusOf(done), { say: done.say });
		cookies.delete('pellum_session', { path: '/' });
		redirect(303, '/sign-in?chosen');
	}
};
