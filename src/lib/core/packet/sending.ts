import { Type, type Static } from '@sinclair/typebox';
import { Line } from '../schema';

/** Schema of what holds for one sending as a whole, besides its title, letter and days. Days are whole ones. */
const Days = (most: number) => Type.Integer({ minimum: 1, maximum: most });

export const RemindersSchema = Type.Object(
	{
		/** days from the day it came to somebody to the first reminder */
		after: Days(365),
		/** days from one reminder to the next; null: one only */
		every: Type.Union([Days(365), Type.Null()]),
		/** how many at most, to one person */
		most: Type.Integer({ minimum: 1, maximum: 50 })
	},
	{ additionalProperties: false }
);

export const TermSchema = Type.Object(
	{
		/** months from the day it is complete */
		months: Type.Integer({ minimum: 1, maximum: 600 }),
		/** days before its end at which the sender is told; null: not at all */
		notice: Type.Union([Days(730), Type.Null()])
	},
	{ additionalProperties: false }
);

export const SendingSchema = Type.Object(
	{
		/** the days to complete count working days only */
		workingDays: Type.Optional(Type.Boolean()),
		/** days before the deadline at which those who still have it, and the sender, are told */
		warning: Type.Optional(Days(60)),
		reminders: Type.Optional(RemindersSchema),
		/** how long the agreement holds */
		term: Type.Optional(TermSchema),
		/** whether people may pass their part on */
		handOver: Type.Optional(Type.Boolean()),
		/** whether people may ask for another wording */
		wording: Type.Optional(Type.Boolean()),
		/** whether somebody may name themselves for another part */
		selfNaming: Type.Optional(Type.Boolean()),
		/** the record says how long each page was in view; set by the organisation */
		seenPages: Type.Optional(Type.Boolean()),
		/** those who get a copy get one when the route comes to them, besides the sealed one */
		earlyCopies: Type.Optional(Type.Boolean()),
		/** what the office sorts by */
		type: Type.Optional(Line(80)),
		folder: Type.Optional(Line(80)),
		description: Type.Optional(Type.String({ maxLength: 2000 })),
		ownReference: Type.Optional(Line(80))
	},
	{ additionalProperties: false }
);
export type Sending = Static<typeof SendingSchema>;
