import { error, json } from '@sveltejs/kit';
import { house } from '$lib/server';
import { receive } from '$lib/server/hooks';

/** What Pellum tells other programs, told to its own receiver. */
export const POST = async ({ request }) => {
	if (!house().config.demo) error(404, { message: 'There is no page at this address.' });
	const good = receive(house(), request.headers, await request.text());
	return json({ good }, { status: good ? 200 : 422 });
};
