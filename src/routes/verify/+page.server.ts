import { house } from '$lib/server';
import { rootDays } from '$lib/server/roots';
import { organisation } from '$lib/server/settings';

export const load = ({ locals }) => ({
	office: organisation(house().db).name,
	signedIn: locals.account !== null && locals.account !== undefined,
	days: rootDays(house().config.folder).slice(-31).reverse()
});
