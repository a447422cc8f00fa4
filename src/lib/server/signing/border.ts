import { Type } from '@sinclair/typebox';
import { Line } from '../../core/schema';
import { AnswerSchema } from '../../core/field';
import { DOCUMENT_KINDS, MOST } from '../../core/identity/asked';
import { border } from '../border';

/** What comes from the signing page, each by its schema. */
const Id = '^[0-9A-Za-z_-]{1,40}$';
const closed = { additionalProperties: false } as const;
const Lines = Type.String({ maxLength: 2000 });

export const finishBorder = border(
	Type.Object(
		{
			answers: Type.Record(Type.String({ pattern: Id }), AnswerSchema, { maxProperties: 5000 }),
			names: Type.Optional(
				Type.Record(
					Type.String({ pattern: Id }),
					Type.Object({ name: Line(200), email: Line(254), note: Type.Optional(Lines) }, closed),
					{ maxProperties: 200 }
				)
			),
			guests: Type.Optional(Type.Record(Type.String({ pattern: Id }), Line(200), { maxProperties: 200 }))
		},
		closed
	)
);
export const declineBorder = border(Type.Object({ reason: Lines }, closed));
export const handOverBorder = border(Type.Object({ name: Line(200), email: Line(254), why: Lines }, closed));
export const wordingBorder = border(
	Type.Object(
		{
			paper: Type.String({ pattern: Id }),
			page: Type.Integer({ minimum: 0, maximum: 1999 }),
			words: Lines,
			instead: Lines,
			why: Lines
		},
		closed
	)
);
export const codeBorder = border(Type.Object({ code: Line(60) }, closed));
const DocumentKind = Type.Union(DOCUMENT_KINDS.map((kind) => Type.Literal(kind)));
export const handInBorder = border(Type.Object({ kind: DocumentKind }, closed));
export const questionsBorder = border(
	Type.Object(
		{ answers: Type.Record(Type.String({ pattern: Id }), Line(200), { maxProperties: MOST.questions }) },
		closed
	)
);
export const guestBorder = border(Type.Object({ guest: Type.String({ pattern: Id }) }, closed));
export const seenBorder = border(
	Type.Object(
		{
			pages: Type.Array(
				Type.Object(
					{
						paper: Type.String({ pattern: Id }),
						page: Type.Integer({ minimum: 0, maximum: 1999 }),
						seconds: Type.Integer({ minimum: 1, maximum: 86_400 })
					},
					closed
				),
				{ maxItems: 2000 }
			)
		},
		closed
	)
);
const Many = Type.Integer({ minimum: 0, maximum: 10_000 });
export const stumbledBorder = border(
	Type.Object(
		{
			last: Type.String({ pattern: `^$|${Id}` }),
			fields: Type.Array(
				Type.Object(
					{
						field: Type.String({ pattern: Id }),
						seconds: Type.Integer({ minimum: 0, maximum: 86_400 }),
						visits: Many,
						back: Many,
						refused: Type.Array(Type.Object({ code: Type.String({ pattern: '^[a-z-]{1,40}$' }), n: Many }, closed), {
							maxItems: 20
						})
					},
					closed
				),
				{ maxItems: 500 }
			)
		},
		closed
	)
);
export const languageBorder = border(Type.Object({ language: Type.String({ pattern: '^[a-z]{2}$' }) }, closed));
