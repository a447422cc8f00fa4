import { error } from '@sveltejs/kit';
import { isRefusal } from '$lib/core/refusal';
import { reportPage } from '$lib/press';
import { house } from '$lib/server';
import { formIn } from '$lib/server/forms';
import { count, TOO_OFTEN } from '$lib/server/limits';
import { paperName } from '$lib/server/papers';
import { judge } from '$lib/server/verifying';
import { fileResponse, statusOf } from '$lib/server/web';

/** Judges the file that is held up, and gives what was found as a page of its own. */
export const POST = async ({ request, locals }) => {
	if (!(await count('verify', locals.from.address))) error(429, { message: TOO_OFTEN.say });
	const form = await formIn(request);
	const file = form.file('file');
	if (!file) error(422, { message: 'Choose the file that is to be judged.' });
	const root = form.file('root');
	if (root && root.size > 200_000) error(422, { message: 'That is no root: it is far too large.' });
	const report = await judge(
		house(),
		{ name: `${paperName(file.name)}.pdf`, bytes: new Uint8Array(await file.arrayBuffer()) },
		root ? await root.text() : null
	);
	if (isRefusal(report)) error(statusOf(report), { message: report.say });
	return fileResponse(new TextEncoder().encode(reportPage(report)), 'text/html; charset=utf-8');
};
