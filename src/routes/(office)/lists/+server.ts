import { json } from '@sveltejs/kit';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { bodyOf } from '$lib/server/bodies';
import { filterChoices, keepListSettings, settingsIn } from '$lib/server/lists';
import { accountIn, answer } from '$lib/server/web';

/** What this account's lists of packets can be filtered by. */
export const GET = ({ locals }) => json(filterChoices(house(), accountIn(locals)));

/** Keeps how this account has one of its lists. */
export const POST = async ({ request, locals }) => {
	const given = settingsIn(await bodyOf(request));
	if (isRefusal(given)) return answer(given);
	const { list, ...settings } = given;
	keepListSettings(house(), accountIn(locals), list, settings);
	return json({ done: true });
};
