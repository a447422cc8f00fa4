import { error } from '@sveltejs/kit';
import { personIn } from '$lib/core/packet';
import { house } from '$lib/server';
import { planOfRow, readBatch } from '$lib/server/batches';
import { organisation } from '$lib/server/settings';
import { accountIn, orError } from '$lib/server/web';

/** What a row would send, as one of its people will have it. Nothing is made of it. */
export const load = ({ params, url, locals }) => {
	const account = accountIn(locals);
	const row = Number(url.searchParams.get('row'));
	const plan = orError(planOfRow(house(), account, orError(readBatch(house(), params.id)), row));
	const person = personIn(plan, url.searchParams.get('person') ?? '');
	if (!person) error(404, { message: 'There is nobody like that on the route.' });
	return {
		plan,
		person,
		rehearsal: `${params.id}-${row}`,
		now: house().now().toISOString(),
		sender: { name: account.name, email: account.email },
		organisation: organisation(house().db)
	};
};
