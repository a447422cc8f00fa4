import { error } from '@sveltejs/kit';
import { house } from '$lib/server';
import { trustedRoots } from '$lib/server/keys';
import { fileResponse } from '$lib/server/web';

export const GET = async ({ params }) => {
	const root = (await trustedRoots(house())).find((r) => r.name === params.name);
	if (!root) error(404, { message: 'There is no such certificate.' });
	return fileResponse(Buffer.from(root.pem), 'application/x-pem-file', root.name);
};
