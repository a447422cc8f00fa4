import { fail } from '@sveltejs/kit';
import { isAddress } from '$lib/core/packet';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { formIn } from '$lib/server/forms';
import { forgetPerson } from '$lib/server/keeping';
import { numberOf } from '$lib/server/office-record';
import { packetsOf } from '$lib/server/records';
import { templateNames } from '$lib/server/templates';
import { accountIn, meIn, statusOf } from '$lib/server/web';

export const load = ({ url, locals }) => {
	const email = (url.searchParams.get('address') ?? '').slice(0, 254);
	const rows = packetsOf(house(), accountIn(locals), email);
	return {
		email,
		name: rows[0]?.name ?? '',
		rows,
		templates: templateNames(house(), accountIn(locals), { most: 60 }),
		account: accountIn(locals),
		/** owners hand over what is held on them, or forget it */
		mayForget: accountIn(locals).level === 'owner' && isAddress(email),
		now: house().now().toISOString()
	};
};

export const actions = {
	forget: async ({ request, locals }) => {
		const form = await formIn(request);
		const [address, why] = [form.text('address', 254), form.lines('why', 2000)];
		const came = await forgetPerson(house(), meIn(locals), address, why);
		return isRefusal(came)
			? fail(statusOf(came), { say: came.say, why })
			: { forgotten: { ...came, certificate: came.number === null ? null : numberOf(came.number) } };
	}
};
