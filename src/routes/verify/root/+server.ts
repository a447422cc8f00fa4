import { error } from '@sveltejs/kit';
import { house } from '$lib/server';
import { rootFile } from '$lib/server/roots';
import { fileResponse } from '$lib/server/web';

/** The signed root of a day, for whoever wants to keep it: hashes alone. */
export const GET = ({ url }) => {
	const day = url.searchParams.get('day') ?? '';
	const file = rootFile(house().config.folder, day);
	if (!file) error(404, { message: 'No root was kept on that day.' });
	return fileResponse(file, 'application/json', `root ${day}.json`);
};
