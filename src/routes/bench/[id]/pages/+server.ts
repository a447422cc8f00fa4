import { Type } from '@sinclair/typebox';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { border } from '$lib/server/border';
import { reorderPaper } from '$lib/server/papers';
import { bodyOf } from '$lib/server/bodies';
import { answer } from '$lib/server/web';

const checked = border(
	Type.Object(
		{
			locale: Type.Optional(Type.String({ maxLength: 20 })),
			digest: Type.String({ pattern: '^[0-9a-f]{64}$' }),
			name: Type.String({ minLength: 1, maxLength: 200 }),
			pages: Type.Array(
				Type.Object(
					{
						from: Type.Integer({ minimum: 0, maximum: 1999 }),
						turn: Type.Union([Type.Literal(0), Type.Literal(90), Type.Literal(180), Type.Literal(270)]),
						lean: Type.Optional(Type.Number({ minimum: -8, maximum: 8 }))
					},
					{ additionalProperties: false }
				),
				{ minItems: 1, maxItems: 1000 }
			)
		},
		{ additionalProperties: false }
	)
);

/** A document with its pages in another order, turned or left out: gives the new one. */
export const POST = async ({ request }) => {
	const body = checked(await bodyOf(request));
	return answer(isRefusal(body) ? body : await reorderPaper(house(), body.digest, body.name, body.pages, body.locale));
};
