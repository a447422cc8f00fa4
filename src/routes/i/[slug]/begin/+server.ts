import { Type } from '@sinclair/typebox';
import { isRefusal, refuse } from '$lib/core/refusal';
import { Line } from '$lib/core/schema';
import { house } from '$lib/server';
import { bodyOf } from '$lib/server/bodies';
import { border } from '$lib/server/border';
import { beginCase } from '$lib/server/intakes';
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
	if (body.website !== '')
		return answer(
			refuse('too-often', 'That was very often in a short while. Wait ten minutes; what you entered is kept.')
		);
	return answer(await beginCase(house(), params.slug, body, locals.from.address));
};
