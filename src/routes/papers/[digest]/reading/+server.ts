import { error, json } from '@sveltejs/kit';
import { house } from '$lib/server';
import { readingOf } from '$lib/server/papers';

/** Words, lines, boxes and form fields of a document: what the Bench snaps to and finds places by. */
export const GET = async ({ params }) => {
	const reading = await readingOf(house(), params.digest);
	if (!reading) error(404, { message: 'There is no such document.' });
	return json(reading, { headers: { 'Cache-Control': 'private, max-age=3600' } });
};
