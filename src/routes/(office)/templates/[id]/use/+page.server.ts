import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { organisation } from '$lib/server/settings';
import { planForUse, readTemplate, savedTexts } from '$lib/server/templates';
import { accountIn, orError } from '$lib/server/web';

export const load = ({ params, locals, url }) => {
	const account = accountIn(locals);
	const template = orError(readTemplate(house(), account, params.id));
	const found = planForUse(house(), account, params.id);
	const { name, zone } = organisation(house().db);
	return {
		id: params.id,
		title: template.title,
		description: template.description,
		version: template.version,
		plan: isRefusal(found) ? null : found.plan,
		why: isRefusal(found) ? found.say : '',
		sender: { name: account.name, email: account.email, organisation: name },
		zone,
		texts: savedTexts(house()),
		/** somebody this is for, where one comes from their page */
		forWhom: { name: url.searchParams.get('name') ?? '', email: url.searchParams.get('email') ?? '' }
	};
};
