import { redirect } from '@sveltejs/kit';
import { house } from '$lib/server';
import { signOut } from '$lib/server/accounts';

export const POST = ({ cookies }) => {
	const token = cookies.get('pellum_session');
	if (token) signOut(house(), token);
	cookies.delete('pellum_session', { path: '/' });
	redirect(303, '/sign-in');
};
