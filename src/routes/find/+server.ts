import { json } from '@sveltejs/kit';
import { house } from '$lib/server';
import { findPackets, findPeople } from '$lib/server/records';
import { templateNames } from '$lib/server/templates';
import { accountIn } from '$lib/server/web';

const MOST = 5;

/** Whatever has the words of `?q=`: packets, people, and for those who prepare, templates. */
export const GET = ({ url, locals }) => {
	const search = (url.searchParams.get('q') ?? '').slice(0, 200);
	const account = accountIn(locals);
	return json({
		packets: findPackets(house(), account, search).map(({ id, title, reference, status, thread }) => ({
			id,
			title,
			reference,
			status,
			people: thread.flat().map((person) => person.name)
		})),
		people: findPeople(house(), account, search, MOST),
		templates:
			account.level === 'viewer' || search.trim() === '' ? [] : templateNames(house(), account, { search, most: MOST })
	});
};
