import { Type } from '@sinclair/typebox';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { border } from '$lib/server/border';
import { keepAsDraft, leaveCorrection, sendCorrection } from '$lib/server/packets/correcting';
import { bodyOf } from '$lib/server/bodies';
import { accountIn, answer } from '$lib/server/web';

const checked = border(
	Type.Object(
		{
			revision: Type.Integer(),
			do: Type.Union([Type.Literal('send'), Type.Literal('leave'), Type.Literal('keep as draft')])
		},
		{ additionalProperties: false }
	)
);

/** Ends a correction: sends it, leaves the packet as it was, or keeps it as a draft where the packet has ended. */
export const POST = async ({ params, request, locals }) => {
	const body = checked(await bodyOf(request));
	if (isRefusal(body)) return answer(body);
	const account = accountIn(locals);
	switch (body.do) {
		case 'send': {
			const sent = sendCorrection(house(), account, params.id, body.revision);
			return answer(isRefusal(sent) ? sent : { packet: sent.packet });
		}
		case 'leave':
			return answer(leaveCorrection(house(), account, params.id) ?? { done: true });
		case 'keep as draft': {
			const draft = keepAsDraft(house(), params.id);
			return answer(isRefusal(draft) ? draft : { done: true });
		}
	}
};
