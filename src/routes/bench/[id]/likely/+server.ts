import { error, json } from '@sveltejs/kit';
import { house } from '$lib/server';
import { foretellPlan } from '$lib/server/pace';
import { readDraft } from '$lib/server/packets/drafts';

/** When the draft would likely be done, were it sent now. */
export const GET = ({ params }) => {
	const draft = readDraft(house(), params.id);
	if (!draft) error(404, { message: 'This draft is gone: it has been sent or put away.' });
	return json(foretellPlan(house(), draft.plan));
};
