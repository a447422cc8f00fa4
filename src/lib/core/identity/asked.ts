import { Type, type Static } from '@sinclair/typebox';
import { KEY_PATTERN, Line } from '../schema';

/** What somebody may be asked to show of themselves, besides a code. */

export const DOCUMENT_KINDS = ['passport', 'identity card', 'residence permit', 'driving licence'] as const;
export type DocumentKind = (typeof DOCUMENT_KINDS)[number];

/** Pictures of one try, by what is on them. */
export const SIDES = ['front', 'back', 'holder'] as const;
export type Side = (typeof SIDES)[number];

/** Most questions, and most tries, that may be asked of one person. */
export const MOST = { questions: 10, tries: 5, days: 3650 } as const;

const closed = { additionalProperties: false } as const;
const Id = Type.String({ pattern: '^[0-9A-Za-z_-]{1,40}$' });

/** The answer is kept as a keyed hash of what is left of it once folded: nobody reads it again. '' in a template, where nobody is known yet. */
export const QuestionSchema = Type.Object(
	{
		id: Id,
		ask: Line(200, { minLength: 1 }),
		as: Type.Union([Type.Literal('text'), Type.Literal('number'), Type.Literal('date')]),
		hash: Line(200)
	},
	closed
);
export type KnownQuestion = Static<typeof QuestionSchema>;

export const IdentitySchema = Type.Object(
	{
		document: Type.Optional(
			Type.Object(
				{
					kinds: Type.Array(Type.Union(DOCUMENT_KINDS.map((kind) => Type.Literal(kind))), {
						minItems: 1,
						maxItems: DOCUMENT_KINDS.length,
						uniqueItems: true
					}),
					/** who may have issued it, by the three letters of ICAO 9303-3 §5; none: anybody */
					countries: Type.Array(Type.String({ pattern: '^[A-Z]{1,3}$' }), { maxItems: 60, uniqueItems: true }),
					bothSides: Type.Boolean(),
					/** a picture of whoever holds it, too */
					holder: Type.Boolean(),
					/** the key of an answer with their date of birth, given before by somebody else or in an intake */
					born: Type.Optional(Type.String({ pattern: KEY_PATTERN }))
				},
				closed
			)
		),
		questions: Type.Optional(
			Type.Object(
				{
					asks: Type.Array(QuestionSchema, { maxItems: MOST.questions }),
					/** so many of them must be right */
					right: Type.Integer({ minimum: 1, maximum: MOST.questions })
				},
				closed
			)
		),
		/** where both are asked for: one of them will do */
		either: Type.Optional(Type.Boolean()),
		/** so many tries of each before somebody of the office looks */
		tries: Type.Integer({ minimum: 1, maximum: MOST.tries }),
		/** whoever showed who they are within so many days is not asked again; without it, for this packet only */
		goodFor: Type.Optional(Type.Integer({ minimum: 1, maximum: MOST.days }))
	},
	closed
);
export type IdentityAsked = Static<typeof IdentitySchema>;

export type IdentityWay = 'document' | 'questions';

/** The ways that are asked for. */
export function waysAsked(asked: IdentityAsked): IdentityWay[] {
	return [...(asked.document ? (['document'] as const) : []), ...(asked.questions ? (['questions'] as const) : [])];
}

/** What is still to be shown by somebody who has shown these. */
export function waysLeft(asked: IdentityAsked, shown: readonly IdentityWay[]): IdentityWay[] {
	const left = waysAsked(asked).filter((way) => !shown.includes(way));
	return asked.either === true && left.length < waysAsked(asked).length ? [] : left;
}

/** The pictures a try needs. A passport has one side that matters. */
export function sidesFor(asked: NonNullable<IdentityAsked['document']>, kind: DocumentKind): Side[] {
	return [
		'front',
		...(asked.bothSides && kind !== 'passport' ? (['back'] as const) : []),
		...(asked.holder ? (['holder'] as const) : [])
	];
}

/** What is wrong with what is asked; null where nothing is. `no-known-answer` may wait in a template. */
export function askedFault(asked: IdentityAsked): { code: 'nothing-asked' | 'no-known-answer'; say: string } | null {
	const wrong = (say: string) => ({ code: 'nothing-asked', say }) as const;
	if (waysAsked(asked).length === 0) return wrong('Choose what is to be shown: a document, answers, or both.');
	if (asked.questions?.asks.length === 0) return wrong('There is no question yet.');
	if (asked.questions && asked.questions.right > asked.questions.asks.length)
		return wrong('More answers must be right than there are questions.');
	if (asked.questions?.asks.some((one) => one.hash === ''))
		return { code: 'no-known-answer', say: 'A question has no answer yet that theirs could be compared with.' };
	return null;
}
