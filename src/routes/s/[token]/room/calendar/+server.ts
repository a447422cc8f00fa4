import { error } from '@sveltejs/kit';
import { house } from '$lib/server';
import { appointmentFile } from '$lib/server/notary';
import { languageOf, visitorOrError } from '$lib/server/visitor';
import { fileResponse } from '$lib/server/web';
import { wordsOf } from '$lib/words';

/** The appointment before the notary as a calendar file. */
export const GET = async ({ params, url, locals }) => {
	const visitor = await visitorOrError(params.token, locals);
	const name = wordsOf(languageOf(visitor, locals))('mail.appointment.subject', { title: visitor.packet.plan.title });
	const file = visitor.proved
		? appointmentFile(house(), visitor.packet, `${url.origin}/s/${params.token}/room`, { name, text: '' })
		: null;
	if (!file) error(404, { message: 'No appointment is set.' });
	return fileResponse(Buffer.from(file), 'text/calendar', 'appointment.ics');
};
