import { Type } from '@sinclair/typebox';
import { isRefusal } from '$lib/core/refusal';
import { Line } from '$lib/core/schema';
import { house } from '$lib/server';
import { bodyOf } from '$lib/server/bodies';
import { border } from '$lib/server/border';
import { dispose } from '$lib/server/keeping';
import { answer, meIn } from '$lib/server/web';

const asked = border(
	Type.Object(
		{
			ids: Type.Array(Line(40), { minItems: 1, maxItems: 200 }),
			why: Type.String({ maxLength: 2000 })
		},
		{ additionalProperties: false }
	)
);

/** Disposes of what is chosen; who may is asked of each packet. */
export const POST = async ({ request, locals }) => {
	const given = asked(await bodyOf(request));
	return answer(isRefusal(given) ? given : await dispose(house(), meIn(locals), given.ids, given.why));
};
