import { error } from '@sveltejs/kit';
import { paceAskedIn, QUESTIONS } from '$lib/core/pace';
import { house } from '$lib/server';
import { paceFile } from '$lib/server/pace';
import { accountIn } from '$lib/server/web';

/** What one question of Pace is answered with, as CSV (RFC 4180). */
export const GET = ({ url, locals }) => {
	const question = QUESTIONS.find((one) => one === url.searchParams.get('question'));
	if (!question) error(404, 'There is no such question.');
	const csv = paceFile(house(), accountIn(locals), paceAskedIn(url.searchParams), question);
	return new Response(csv, {
		headers: {
			'content-type': 'text/csv; charset=utf-8',
			'content-disposition': `attachment; filename="pace-${question.replace(' ', '-')}.csv"`
		}
	});
};
