import { Type } from '@sinclair/typebox';
import { isRefusal } from '$lib/core/refusal';
import { Line } from '$lib/core/schema';
import { house } from '$lib/server';
import { beginAmendment } from '$lib/server/amending';
import { bodyOf } from '$lib/server/bodies';
import { border } from '$lib/server/border';
import { accountIn, answer } from '$lib/server/web';

const asked = border(
	Type.Object(
		{
			does: Type.Union([Type.Literal('changes'), Type.Literal('ends'), Type.Literal('renews')]),
			day: Type.Optional(Line(10)),
			why: Type.Optional(Line(1000))
		},
		{ additionalProperties: false }
	)
);

/** Begins an amendment of what holds: gives the draft's id. */
export const POST = async ({ params, request, locals }) => {
	const given = asked(await bodyOf(request));
	if (isRefusal(given)) return answer(given);
	const draft = await beginAmendment(house(), accountIn(locals), params.id, given);
	return answer(isRefusal(draft) ? draft : { draft: draft.id });
};
