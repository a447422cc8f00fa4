import { error } from '@sveltejs/kit';
import { house } from '$lib/server';
import { mailboxMessage } from '$lib/server/mail/mailbox';
import { standInsFor } from '$lib/server/stand-ins';

export const load = ({ params, locals }) => {
	standInsFor(locals);
	const message = mailboxMessage(house(), Number(params.id) || 0);
	if (!message) error(404, { message: 'There is no such message.' });
	const { html: _html, ...rest } = message;
	return {
		message: rest, // by its path, so that it leads here though this Pellum has moved to another address since
		link: message.text.match(/\/s\/[\w-]{43}/)?.[0] ?? null
	};
};
