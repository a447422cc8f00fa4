import { redirect } from '@sveltejs/kit';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { roomView } from '$lib/server/notary';
import { languageOf, visitorOrError } from '$lib/server/visitor';
import { visitTextsOf, wordsOf } from '$lib/words';

/** The room before the notary; whoever has not agreed yet, or has nothing to do in it, is shown their own page. */
export const load = async ({ params, locals }) => {
	const visitor = await visitorOrError(params.token, locals);
	const language = languageOf(visitor, locals);
	const room = roomView(house(), visitor, language);
	const standing = visitor.packet.people[visitor.person.id];
	const agreed = standing?.is === 'done' || (standing?.is === 'opened' && standing.consented !== null);
	if (isRefusal(room) || !agreed) redirect(303, `/s/${params.token}`);
	return {
		room,
		language,
		direction: wordsOf(language).direction,
		texts: visitTextsOf(language)
	};
};
