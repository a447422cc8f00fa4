import { house } from '$lib/server';
import { datesAsCalendar } from '$lib/server/dates';

/** Deadlines of what is out and terms of what is complete, as an iCalendar file. */
export const GET = () =>
	new Response(datesAsCalendar(house()), {
		headers: {
			'Content-Type': 'text/calendar; charset=utf-8',
			'Content-Disposition': 'attachment; filename="pellum.ics"'
		}
	});
