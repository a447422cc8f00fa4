import { Type, type Static } from '@sinclair/typebox';
import { SettingsSchema } from '../packet/plan';
import { KEY_PATTERN, Line } from '../schema';

/** An intake: a page that anybody with its link can start a packet from. The JSON Schema and the type come from this one source. */

const Id = Type.String({ pattern: '^[0-9A-Za-z_-]{1,40}$' });
const Rule = Type.String({ maxLength: 2000 });
const Key = Type.String({ pattern: KEY_PATTERN });
const Day = Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}$' });
const closed = { additionalProperties: false } as const;

/** Kinds that a question of an intake's own can be; a group has its options in `settings.options`. */
export const QUESTION_KINDS = ['text', 'number', 'date', 'choice', 'pick-one', 'ticks', 'email', 'computed'] as const;
export type QuestionKind = (typeof QUESTION_KINDS)[number];

/** A question that stands on no page of the document. */
export const QuestionSchema = Type.Object(
	{
		kind: Type.Union(QUESTION_KINDS.map((kind) => Type.Literal(kind))),
		key: Key,
		label: Line(200, { minLength: 1 }),
		help: Type.Optional(Line(500)),
		required: Type.Boolean(),
		settings: SettingsSchema
	},
	closed
);
export type Question = Static<typeof QuestionSchema>;

/** What stands on a page of questions, from the top. `when`: only where this rule holds. */
export const ItemSchema = Type.Union([
	/** a question of the document, by its key */
	Type.Object({ id: Id, is: Type.Literal('field'), key: Key, when: Type.Optional(Rule) }, closed),
	Type.Object({ id: Id, is: Type.Literal('question'), question: QuestionSchema, when: Type.Optional(Rule) }, closed),
	/** simply formatted: **bold**, lists, links */
	Type.Object(
		{ id: Id, is: Type.Literal('text'), text: Type.String({ maxLength: 4000 }), when: Type.Optional(Rule) },
		closed
	),
	/** who takes these roles; the second and later ones are asked for where the first is and their stop opens */
	Type.Object(
		{
			id: Id,
			is: Type.Literal('people'),
			roles: Type.Array(Id, { minItems: 1, maxItems: 10 }),
			help: Type.Optional(Line(500)),
			when: Type.Optional(Rule)
		},
		closed
	)
]);
export type Item = Static<typeof ItemSchema>;

/** Where a page leads besides the one after it. */
export const DOCUMENT = 'document';

const PageSchema = Type.Object(
	{
		id: Id,
		title: Line(120),
		/** the page is passed over where this does not hold */
		when: Type.Optional(Rule),
		items: Type.Array(ItemSchema, { maxItems: 100 }),
		/** the first whose rule holds says which page comes; {@link DOCUMENT}: none */
		next: Type.Optional(Type.Array(Type.Object({ when: Rule, to: Id }, closed), { maxItems: 20 }))
	},
	closed
);
export type IntakePage = Static<typeof PageSchema>;

/** A rule that speaks: its sentence is shown where it holds. It may close the way, or force an answer. */
const SaySchema = Type.Object(
	{
		id: Id,
		when: Rule,
		say: Type.String({ minLength: 1, maxLength: 1000 }),
		closes: Type.Optional(Type.Boolean()),
		/** as it would be typed; for a list or a group, the value */
		forces: Type.Optional(Type.Object({ key: Key, answer: Line(1000) }, closed))
	},
	closed
);
export type Say = Static<typeof SaySchema>;

/** What is sent or started by itself. */
export const FollowUpSchema = Type.Object(
	{
		id: Id,
		/** when the packet has ended so, or when a stop is done */
		at: Type.Union([
			Type.Literal('completed'),
			Type.Literal('declined'),
			Type.Literal('expired'),
			Type.Object({ stop: Id }, closed)
		]),
		when: Type.Optional(Rule),
		does: Type.Union([
			Type.Object(
				{
					is: Type.Literal('letter'),
					/** a role's id, or an address of the office's choosing */
					to: Line(254, { minLength: 1 }),
					subject: Line(200),
					message: Type.String({ maxLength: 4000 }),
					/** the sealed copies go with it, where there are some by then */
					copies: Type.Boolean()
				},
				closed
			),
			Type.Object(
				{
					is: Type.Literal('template'),
					template: Id,
					/** who takes a role of that template: by its id, the id of the role here */
					people: Type.Record(Id, Id)
				},
				closed
			),
			Type.Object({ is: Type.Literal('row'), keys: Type.Array(Key, { maxItems: 200 }) }, closed),
			Type.Object({ is: Type.Literal('file'), folder: Line(80) }, closed)
		])
	},
	closed
);
export type FollowUp = Static<typeof FollowUpSchema>;

/** Who may start. A code stands here only as a salted hash. */
export const DoorSchema = Type.Union([
	Type.Object({ by: Type.Literal('link') }, closed),
	Type.Object({ by: Type.Literal('code'), hash: Line(200) }, closed),
	Type.Object({ by: Type.Literal('domains'), domains: Type.Array(Line(253), { minItems: 1, maxItems: 50 }) }, closed),
	Type.Object({ by: Type.Literal('sheet') }, closed)
]);
export type Door = Static<typeof DoorSchema>;

export const IntakeSchema = Type.Object(
	{
		heading: Line(120),
		text: Type.String({ maxLength: 4000 }),
		pages: Type.Array(PageSchema, { maxItems: 50 }),
		says: Type.Array(SaySchema, { maxItems: 50 }),
		/** the role of whom a case is about: the visitor, or whom a representative prepares it for */
		starter: Id,
		/** whether somebody may prepare a case for the person it is about */
		representative: Type.Union([Type.Literal('no'), Type.Literal('may'), Type.Literal('must')]),
		door: DoorSchema,
		/** a code to the visitor's address before anything is sent to anybody */
		proof: Type.Boolean(),
		/** first and last day on which it is open, in the office's zone */
		from: Type.Optional(Day),
		to: Type.Optional(Day),
		/** no more after so many cases */
		most: Type.Optional(Type.Integer({ minimum: 1, maximum: 1_000_000 })),
		/** so many cases in a day from one address */
		perAddress: Type.Integer({ minimum: 1, maximum: 1000 }),
		/** the sentence shown while it is closed */
		closed: Type.String({ maxLength: 500 }),
		then: Type.Array(FollowUpSchema, { maxItems: 20 }),
		/** origins whose pages may show it in a frame */
		frames: Type.Array(Type.String({ pattern: '^https?://[A-Za-z0-9.-]{1,253}(:\\d{1,5})?$' }), { maxItems: 20 }),
		/** all questions on one page, where they are few */
		together: Type.Optional(Type.Boolean()),
		/** the version of the template it is made from; without it, always the one in use */
		version: Type.Optional(Type.Integer({ minimum: 1 }))
	},
	closed
);
export type Intake = Static<typeof IntakeSchema>;

/** Whom a visitor names, by the id of the role. */
export const NamedSchema = Type.Record(
	Id,
	Type.Object(
		{
			name: Line(200),
			email: Line(254),
			phone: Type.Optional(Line(40)),
			locale: Type.Optional(Line(10)),
			note: Type.Optional(Type.String({ maxLength: 1000 }))
		},
		closed
	)
);
export type Named = Static<typeof NamedSchema>;

/** An intake that asks nothing yet: anybody with the link starts it for themselves, and proves their address. */
export const emptyIntake = (heading: string, starter: string): Intake => ({
	heading,
	text: '',
	pages: [],
	says: [],
	starter,
	representative: 'no',
	door: { by: 'link' },
	proof: true,
	perAddress: 5,
	closed: '',
	then: [],
	frames: []
});
