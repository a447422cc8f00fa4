import { Type } from '@sinclair/typebox';
import { isRefusal } from '$lib/core/refusal';
import { CheckSchema, DUTIES } from '$lib/core/packet';
import { house } from '$lib/server';
import { border } from '$lib/server/border';
import { joinAsDraft } from '$lib/server/templates';
import { bodyOf } from '$lib/server/bodies';
import { accountIn, answer } from '$lib/server/web';

const closed = { additionalProperties: false };
const Id = Type.String({ maxLength: 40 });
const Count = Type.Integer({ minimum: 0, maximum: 200 });

const checked = border(
	Type.Object(
		{
			draft: Type.Union([Id, Type.Null()]),
			templates: Type.Array(Id, { maxItems: 8 }),
			joining: Type.Object(
				{
					people: Type.Array(
						Type.Object(
							{
								id: Type.String({ pattern: '^[0-9A-Za-z_-]{1,40}$' }),
								members: Type.Array(Type.Object({ part: Count, person: Id }, closed), { minItems: 1, maxItems: 8 }),
								taken: Type.Optional(Count),
								duty: Type.Optional(Type.Union(DUTIES.map((duty) => Type.Literal(duty)))),
								check: Type.Optional(Type.Union([CheckSchema, Type.Null()]))
							},
							closed
						),
						{ maxItems: 200 }
					),
					stops: Type.Array(Type.Array(Id, { maxItems: 100 }), { maxItems: 200 }),
					keys: Type.Record(Type.String({ maxLength: 60 }), Type.Union([Type.Literal('one'), Type.Literal('apart')])),
					accepted: Type.Array(Type.String({ maxLength: 200 }), { maxItems: 1000 }),
					days: Type.Optional(Type.Union([Type.Integer({ minimum: 1, maximum: 730 }), Type.Null()])),
					sending: Type.Optional(Count),
					opens: Type.Optional(
						Type.Record(
							Type.String({ maxLength: 4200 }),
							Type.Object({ when: Type.String({ maxLength: 2000 }), anyOne: Type.Boolean() }, closed),
							{ maxProperties: 200 }
						)
					)
				},
				closed
			)
		},
		closed
	)
);

/** Joins templates, and a draft where one is named, as they were laid together: gives the new draft. */
export const POST = async ({ request, locals }) => {
	const body = checked(await bodyOf(request));
	if (isRefusal(body)) return answer(body);
	const { joining, ...wanted } = body;
	const draft = joinAsDraft(house(), accountIn(locals), wanted, joining);
	return answer(isRefusal(draft) ? draft : { draft: draft.id });
};
