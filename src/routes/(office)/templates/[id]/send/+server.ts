import { Type } from '@sinclair/typebox';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { border } from '$lib/server/border';
import { checkedGiven } from '$lib/server/packets/plan-border';
import { draftFromTemplate, planForUse, sendTemplate } from '$lib/server/templates';
import { bodyOf } from '$lib/server/bodies';
import { accountIn, answer } from '$lib/server/web';

const checked = border(Type.Object({ send: Type.Boolean(), given: Type.Unknown() }, { additionalProperties: false }));

/** Makes a packet of a template with what is given: `send` at once, else as a draft for the Bench. */
export const POST = async ({ params, request, locals }) => {
	const account = accountIn(locals);
	const body = checked(await bodyOf(request));
	if (isRefusal(body)) return answer(body);
	const found = planForUse(house(), account, params.id);
	if (isRefusal(found)) return answer(found);
	const given = checkedGiven(found.plan, body.given);
	if (isRefusal(given)) return answer(given);
	if (body.send) {
		const sent = sendTemplate(house(), account, params.id, given);
		return answer(isRefusal(sent) ? sent : { packet: sent.packet });
	}
	const draft = draftFromTemplate(house(), account, params.id, given);
	return answer(isRefusal(draft) ? draft : { draft: draft.id });
};
