import { house } from '$lib/server';
import { comparePapers } from '$lib/server/amending';
import { accountIn, orError } from '$lib/server/web';

export const load = ({ url, locals }) => {
	const side = (name: string) => ({
		packet: url.searchParams.get(name)?.slice(0, 40) ?? '',
		paper: url.searchParams.get(`${name}-paper`)?.slice(0, 40) ?? ''
	});
	return orError(comparePapers(house(), accountIn(locals), [side('a'), side('b')]));
};
