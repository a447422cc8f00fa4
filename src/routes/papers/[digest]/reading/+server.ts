import { error, json } from '@sveltejs/kit';
import { house } from '$lib/server';
import { readingOf, scansOf } from '$lib/server/papers';

/**
 * Words, lines, boxes and form fields of a document: what the Bench snaps to and finds places by. With `?scans` only how
 * far the reading of its pictures is.
 */
export const GET = async ({ params, url }) => {
	if (url.searchParams.has('scans'))
		return json(scansOf(house(), params.digest), { headers: { 'Cache-Control': 'no-store' } });
	const reading = await readingOf(house(), params.digest);
	if (!reading) error(404, { message: 'There is no such document.' });
	const whole = !reading.scans || reading.scans.done >= reading.scans.pages.length;
	return json(reading, { headers: { 'Cache-Control': whole ? 'private, max-age=3600' : 'no-store' } });
};
