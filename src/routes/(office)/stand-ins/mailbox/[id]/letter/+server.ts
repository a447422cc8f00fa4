import { error } from '@sveltejs/kit';
import { house } from '$lib/server';
import { mailboxMessage } from '$lib/server/mail/mailbox';
import { standInsFor } from '$lib/server/stand-ins';

/** The message's HTML as a mail program would show it: in a frame of its own, without scripts. */
export const GET = ({ params, locals }) => {
	standInsFor(locals);
	const message = mailboxMessage(house(), Number(params.id) || 0);
	if (!message) error(404, { message: 'There is no such message.' });
	return new Response(message.html, {
		headers: {
			'Content-Type': 'text/html; charset=utf-8',
			'Content-Security-Policy':
				"default-src 'none'; style-src 'unsafe-inline'; frame-ancestors 'self'; sandbox allow-popups allow-popups-to-escape-sandbox allow-top-navigation-by-user-activation"
		}
	});
};
