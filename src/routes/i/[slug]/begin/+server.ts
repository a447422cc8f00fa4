import { Type } from '@sinclair/typebox';
import { isRefusal } from '$lib/core/refusal';
import { Line } from '$lib/core/schema';
import { house } from '$lib/server';
import { bodyOf } from '$lib/server/bodies';
import { border } from '$lib/server/border';
import { beginCase } from '$lib/server/intakes';
import { TOO_OFTEN } from '$lib/server/limits';
import { answer } from '$lib/server/web';

const begins = border(
	Type.Object(
		{
			code: Type.Optional(Line(40)),
			key: Type.Optional(Line(60)),
			language: Line(10),
			/** nobody sees it: only what fills in everything fills it in */
			website: Line(200)
		},
		{ additionalProperties: false }
	)
);

export const POST = async ({ params, locals, request }) => {
	const body = begins(await bodyOf(request));
	if (isRefusal(body)) return answer(body);
	if (body.website !== '') return answer(TOO_OFTEN);
	return answer(await beginCase(house(), params.slug, body, locals.from.address));
};
