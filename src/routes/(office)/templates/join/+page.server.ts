import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { partsOf, templateNames } from '$lib/server/templates';
import { accountIn } from '$lib/server/web';

const MOST = 8;

export const load = ({ url, locals }) => {
	const account = accountIn(locals);
	const templates = (url.searchParams.get('ids') ?? '').split(',').filter(Boolean).slice(0, MOST);
	const draft = url.searchParams.get('draft');
	const parts = partsOf(house(), account, { draft, templates });
	return {
		wanted: { draft, templates },
		parts: isRefusal(parts) ? [] : parts,
		why: isRefusal(parts) ? parts.say : '',
		others: templateNames(house(), account, { most: 100 }).filter((t) => !templates.includes(t.id))
	};
};
