import { Type, type Static } from '@sinclair/typebox';

/**
 * What a person has tied a field to. Without a pin it is tied to the words around it, by itself.
 * `phrase`: words of the document, and which of their places is meant, counted from 1. `page`: the page itself.
 */
export const PinSchema = Type.Union([
	Type.Object({ by: Type.Literal('page') }, { additionalProperties: false }),
	Type.Object(
		{
			by: Type.Literal('phrase'),
			text: Type.String({ minLength: 1, maxLength: 200 }),
			nth: Type.Integer({ minimum: 1, maximum: 10_000 })
		},
		{ additionalProperties: false }
	)
]);
export type Pin = Static<typeof PinSchema>;
