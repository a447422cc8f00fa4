import { error } from '@sveltejs/kit';
import { personIn } from '$lib/core/packet';
import { house } from '$lib/server';
import { readDraft } from '$lib/server/packets/drafts';
import { organisation } from '$lib/server/settings';
import { accountIn } from '$lib/server/web';

/** A draft as one of its people will have it. Nothing is written: answers stay in the browser. */
export const load = ({ params, url, locals }) => {
	const draft = readDraft(house(), params.id);
	if (!draft) error(404, { message: 'This draft is gone: it has been sent or put away.' });
	const person = personIn(draft.plan, url.searchParams.get('person') ?? '');
	if (!person) error(404, { message: 'There is nobody like that on the route.' });
	const account = accountIn(locals);
	return {
		plan: draft.plan,
		person,
		now: house().now().toISOString(),
		sender: { name: account.name, email: account.email },
		organisation: organisation(house().db)
	};
};
