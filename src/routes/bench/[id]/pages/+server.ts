import { Type } from '@sinclair/typebox';
import { isRefusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { heldBy, permitted } from '$lib/server/access';
import { border } from '$lib/server/border';
import { reorderPaper, unknownPaper } from '$lib/server/papers';
import { bodyOf } from '$lib/server/bodies';
import { accountIn, answer } from '$lib/server/web';

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
export const POST = async ({ params, request, locals }) => {
	const body = checked(await bodyOf(request));
	if (isRefusal(body)) return answer(body);
	const { digest, name, pages, locale } = body;
	if (!permitted(house().db, accountIn(locals), 'see', 'file', digest)) return answer(unknownPaper(name));
	return answer(heldBy(house().db, params.id, await reorderPaper(house(), digest, name, pages, locale)));
};
