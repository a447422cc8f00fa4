import { Type, type Static } from '@sinclair/typebox';
import { Line } from '../schema';

/** Strokes of a pen: each a run of x, y, x, y … in thousandths of the mark's width, y downwards. */
export const Strokes = Type.Array(Type.Array(Type.Integer({ minimum: -200, maximum: 4000 }), { maxItems: 4000 }), {
	minItems: 1,
	maxItems: 200
});

/** The hands shipped for typed signatures. */
export const HANDS = ['caveat', 'marck', 'literata', 'bad', 'kalam', 'sacramento'] as const;
export type Hand = (typeof HANDS)[number];

/** A signature or initials: typed in a hand, drawn as strokes, or a picture kept by its SHA-256. */
export const MarkAnswer = Type.Union([
	Type.Object(
		{
			way: Type.Literal('typed'),
			text: Line(120),
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

/** A moment, its day in the organisation's zone, and the words it is shown with: fixed when it is filled in. */
export const DateAnswer = Type.Object(
	{
		at: Line(40),
		day: Type.Optional(Line(10)),
		text: Line(80)
	},
	{ additionalProperties: false }
);
export type DateAnswer = Static<typeof DateAnswer>;

/** A number in plain decimal notation, never a binary float. */
export const NumberAnswer = Type.Object(
	{ number: Type.String({ pattern: '^-?\\d{1,30}(\\.\\d{1,30})?$' }) },
	{ additionalProperties: false }
);
export type NumberAnswer = Static<typeof NumberAnswer>;

/** A calendar day, ISO 8601. */
export const DayAnswer = Type.Object(
	{ day: Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}$' }) },
	{ additionalProperties: false }
);
export type DayAnswer = Static<typeof DayAnswer>;

/** One value out of several. */
export const ChoiceAnswer = Type.Object({ choice: Line(200) }, { additionalProperties: false });
export type ChoiceAnswer = Static<typeof ChoiceAnswer>;

/** The values of the boxes that are ticked, in the order of the boxes. */
export const TicksAnswer = Type.Object(
	{ ticks: Type.Array(Line(200), { maxItems: 500, uniqueItems: true }) },
	{ additionalProperties: false }
);
export type TicksAnswer = Static<typeof TicksAnswer>;

/** The largest file that can be handed in. */
export const MOST_MEGABYTES = 25;

/** A file that was handed in: kept by its SHA-256, unchanged. */
export const FileAnswer = Type.Object(
	{
		file: Type.String({ pattern: '^[0-9a-f]{64}$' }),
		name: Line(200, { minLength: 1 }),
		media: Line(100),
		bytes: Type.Integer({ minimum: 1, maximum: MOST_MEGABYTES * 1024 * 1024 })
	},
	{ additionalProperties: false }
);
export type FileAnswer = Static<typeof FileAnswer>;

/** What comes from outside. The signing date is not among it: Pellum fills that in itself. */
export const AnswerSchema = Type.Union([
	MarkAnswer,
	TextAnswer,
	NumberAnswer,
	DayAnswer,
	ChoiceAnswer,
	TicksAnswer,
	FileAnswer
]);

export type Answer = Static<typeof AnswerSchema> | DateAnswer;

export const isMark = (a: Answer): a is MarkAnswer => 'way' in a;
export const isText = (a: Answer): a is TextAnswer => 'text' in a && !('way' in a) && !('at' in a);
export const isDate = (a: Answer): a is DateAnswer => 'at' in a;
export const isNumberAnswer = (a: Answer): a is NumberAnswer => 'number' in a;
export const isDayAnswer = (a: Answer): a is DayAnswer => 'day' in a;
export const isChoice = (a: Answer): a is ChoiceAnswer => 'choice' in a;
export const isTicks = (a: Answer): a is TicksAnswer => 'ticks' in a;
export const isFile = (a: Answer): a is FileAnswer => 'file' in a;

/** Whether an answer says nothing: only blanks, no box ticked. */
export function isBlank(answer: Answer): boolean {
	if (isText(answer)) return answer.text.trim() === '';
	if (isTicks(answer)) return answer.ticks.length === 0;
	return isChoice(answer) && answer.choice === '';
}
