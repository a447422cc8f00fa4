import { house } from '$lib/server';
import { datesAsCalendar } from '$lib/server/dates';
import { accountIn } from '$lib/server/web';

/** Deadlines of what is out and terms of what is complete, as an iCalendar file. */
export const GET = ({ locals }) =>
	new Response(datesAsCalendar(house(), accountIn(locals)), {
		headers: {
			'Content-Type': 'text/calendar; charset=utf-8',
			'Content-Disposition': 'attachment; filename="pellum.ics"'
		}
	});
