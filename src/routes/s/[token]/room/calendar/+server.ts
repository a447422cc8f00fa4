import { error } from '@sveltejs/kit';
import { house } from '$lib/server';
import { appointmentFile } from '$lib/server/notary';
import { languageOf, visitorOrError } from '$lib/server/visitor';
import { fileResponse } from '$lib/server/web';

/** The appointment before the notary as a calendar file. */
export const GET = async ({ params, url, locals }) => {
	const visitor = await visitorOrError(params.token, locals);
	const file = visitor.proved
		? appointmentFile(house(), visitor.packet, `${url.origin}/s/${params.token}/room`, languageOf(visitor, locals))
		: null;
	if (!file) error(404, { message: 'No appointment is set.' });
	return fileResponse(Buffer.from(file), 'text/calendar', 'appointment.ics');
};
