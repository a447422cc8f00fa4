import { Type, type Static } from '@sinclair/typebox';
import { Line } from '../schema';

const Id = Type.String({ pattern: '^[0-9A-Za-z_-]{1,40}$' });
const Day = Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}$' });

/** One change of words: what is struck, what stands instead, and where that is written. */
export const ChangeSchema = Type.Object(
	{
		id: Id,
		paper: Id,
		page: Type.Integer({ minimum: 0, maximum: 1999 }),
		words: Line(400, { minLength: 1 }),
		/** '' where the words only fall away */
		instead: Line(1000),
		/** above the line, beside it, or as a numbered note on the page of changes, where there is no room */
		how: Type.Union([Type.Literal('above'), Type.Literal('beside'), Type.Literal('note')])
	},
	{ additionalProperties: false }
);
export type Change = Static<typeof ChangeSchema>;

/** What a plan has that changes a completed packet. */
export const AmendsSchema = Type.Object(
	{
		/** the packet that is changed: the one that holds when it was begun */
		packet: Id,
		reference: Line(20),
		title: Line(200),
		/** how many amendments there will be with it */
		number: Type.Integer({ minimum: 1, maximum: 999 }),
		/** words or pages; or the end of it, or that it goes on */
		does: Type.Union([Type.Literal('changes'), Type.Literal('ends'), Type.Literal('renews')]),
		/** the last day from then on; of what ends or goes on */
		day: Type.Optional(Day),
		/** why, in the words that everybody reads */
		why: Type.Optional(Line(1000)),
		/** the day before which notice would have been due, where that has passed */
		notice: Type.Optional(Day),
		/** who signed it, by the places they have here too */
		parties: Type.Array(Type.Object({ id: Id, name: Line(200) }, { additionalProperties: false }), { maxItems: 200 }),
		/** why somebody who signed it takes no part now */
		without: Type.Optional(Line(1000)),
		/** the documents as they were when it was begun, by digest */
		papers: Type.Array(Type.String({ pattern: '^[0-9a-f]{64}$' }), { maxItems: 50 }),
		/** the page of changes, once it is made; by its document in the plan */
		summary: Type.Optional(Id),
		changes: Type.Array(ChangeSchema, { maxItems: 200 })
	},
	{ additionalProperties: false }
);
export type Amends = Static<typeof AmendsSchema>;
