import { error } from '@sveltejs/kit';
import { house } from '$lib/server';
import { thumbnailOf } from '$lib/server/papers';
import { fileResponse } from '$lib/server/web';

export const GET = ({ params }) => {
	const bytes = thumbnailOf(house(), params.digest);
	if (!bytes) error(404, { message: 'There is no such document.' });
	return fileResponse(bytes, 'image/png');
};
