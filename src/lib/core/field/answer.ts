import { Type, type Static } from '@sinclair/typebox';

/** Strokes of a pen: each a run of x, y, x, y … in thousandths of the mark's width, y downwards. */
export const Strokes = Type.Array(Type.Array(Type.Integer({ minimum: -200, maximum: 4000 }), { maxItems: 4000 }), {
	minItems: 1,
	maxItems: 200
});

/** The hands shipped for typed signatures. */
export const HANDS = ['caveat', 'marck', 'literata'] as const;
export type Hand = (typeof HANDS)[number];

/** A signature or initials: typed in a hand, drawn as strokes, or a picture kept by its SHA-256. */
export const MarkAnswer = Type.Union([
	Type.Object(
		{
			way: Type.Literal('typed'),
			text: Type.String({ maxLength: 120 }),
			hand: Type.Union(HANDS.map((hand) => Type.Literal(hand)))
		},
		{ additionalProperties: false }
	),
	Type.Object(
		{ way: Type.Literal('drawn'), strokes: Strokes, ratio: Type.Number({ minimum: 0.02, maximum: 4 }) },
		{ additionalProperties: false }
	),
	Type.Object(
		{ way: Type.Literal('picture'), digest: Type.String({ pattern: '^[0-9a-f]{64}$' }) },
		{ additionalProperties: false }
	)
]);
export type MarkAnswer = Static<typeof MarkAnswer>;

export const TextAnswer = Type.Object({ text: Type.String({ maxLength: 10_000 }) }, { additionalProperties: false });
export type TextAnswer = Static<typeof TextAnswer>;

/** A moment and the words it is shown with, fixed when it is filled in. */
export const DateAnswer = Type.Object(
	{ at: Type.String({ maxLength: 40 }), text: Type.String({ maxLength: 80 }) },
	{ additionalProperties: false }
);
export type DateAnswer = Static<typeof DateAnswer>;

export type Answer = MarkAnswer | TextAnswer | DateAnswer;

export const isMark = (a: Answer): a is MarkAnswer => 'way' in a;
export const isText = (a: Answer): a is TextAnswer => 'text' in a && !('way' in a) && !('at' in a);
export const isDate = (a: Answer): a is DateAnswer => 'at' in a;
