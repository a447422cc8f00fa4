import { error } from '@sveltejs/kit';
import { house } from '$lib/server';
import { count } from '$lib/server/limits';
import { calendarByAddress } from '$lib/server/feeds';

/** The dates of whoever's secret address this is, for a calendar program that asks now and then. */
export const GET = async ({ params, locals }) => {
	const calendar = calendarByAddress(house(), params.token);
	if (calendar === null) {
		if (!(await count('link', locals.from.address))) error(429, { message: 'Too many tries. Wait ten minutes.' });
		error(404, { message: 'There is no calendar at this address, or its address was renewed.' });
	}
	return new Response(calendar, {
		headers: { 'Content-Type': 'text/calendar; charset=utf-8', 'Cache-Control': 'private, max-age=900' }
	});
};
