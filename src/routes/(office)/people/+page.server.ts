import { house } from '$lib/server';
import { packetsOf } from '$lib/server/records';
import { templateNames } from '$lib/server/templates';
import { accountIn } from '$lib/server/web';

export const load = ({ url, locals }) => {
	const email = (url.searchParams.get('address') ?? '').slice(0, 254);
	const rows = packetsOf(house(), accountIn(locals), email);
	return {
		email,
		name: rows[0]?.name ?? '',
		rows,
		templates: templateNames(house(), accountIn(locals), { most: 60 }),
		account: accountIn(locals),
		now: house().now().toISOString()
	};
};
