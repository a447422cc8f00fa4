import { house } from '$lib/server';
import { answersOfCases } from '$lib/server/intakes';
import { accountIn, fileResponse, orError } from '$lib/server/web';

/** The answers of all cases, by key. */
export const GET = async ({ params, locals, url }) => {
	const { bytes, media, name } = orError(
		await answersOfCases(house(), accountIn(locals), params.id, url.searchParams.get('as') ?? 'csv')
	);
	return fileResponse(bytes, media, name);
};
