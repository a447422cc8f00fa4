import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { listTemplates, partsOf } from '$lib/server/templates';
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
		others: listTemplates(house(), account, { show: 'all', most: 100 })
			.filter((t) => t.version > 0 && !templates.includes(t.id))
			.map(({ id, title }) => ({ id, title }))
	};
};
