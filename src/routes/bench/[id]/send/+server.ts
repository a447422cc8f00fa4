import { Type } from '@sinclair/typebox';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { border } from '$lib/server/border';
import { sendDraft } from '$lib/server/packets/sending';
import { bodyOf } from '$lib/server/bodies';
import { accountIn, answer } from '$lib/server/web';

const checked = border(Type.Object({ revision: Type.Integer() }, { additionalProperties: false }));

export const POST = async ({ params, request, locals }) => {
	const body = checked(await bodyOf(request));
	if (isRefusal(body)) return answer(body);
	const sent = sendDraft(house(), accountIn(locals), params.id, body.revision);
	return answer(isRefusal(sent) ? sent : { packet: sent.packet, reference: sent.reference });
};
