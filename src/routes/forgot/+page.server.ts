import { fail } from '@sveltejs/kit';
import { house } from '$lib/server';
import { askReset } from '$lib/server/accounts';
import { formIn } from '$lib/server/forms';
import { count } from '$lib/server/limits';

export const actions = {
	default: async ({ request, locals }) => {
		const email = (await formIn(request)).text('email', 254).trim();
		if (!(await count('reset', locals.from.address)))
			return fail(429, { email, say: 'Too many letters have been asked for. Wait an hour, then try again.' });
		// what is too much for one address is let go in silence, as is an address that nobody has
		if (await count('resetFor', email.toLowerCase())) askReset(house(), locals.from.address, email);
		return { email, sent: true };
	}
};
