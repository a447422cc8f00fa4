import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { planForUse } from '$lib/server/templates';
import { accountIn, answer } from '$lib/server/web';

/** The plan of a template, to be laid over a document or joined with others. */
export const GET = ({ params, locals }) => {
	const found = planForUse(house(), accountIn(locals), params.id);
	return answer(isRefusal(found) ? found : { title: found.title, plan: found.plan });
};
