import { redirect } from '@sveltejs/kit';
import { house } from '$lib/server';
import { signOut } from '$lib/server/accounts';
import { doerIn } from '$lib/server/web';

export const POST = ({ cookies, locals }) => {
	if (locals.token) signOut(house(), locals.token, doerIn(locals));
	cookies.delete('pellum_session', { path: '/' });
	redirect(303, '/sign-in');
};
