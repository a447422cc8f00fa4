import { Type, type Static } from '@sinclair/typebox';

/**
 * A plan: all that is prepared before sending. A draft and a packet both hold one, so does (later) a template.
 * The JSON Schema and the type come from this one source.
 */
const Id = Type.String({ pattern: '^[0-9A-Za-z_-]{1,40}$' });
const Digest = Type.String({ pattern: '^[0-9a-f]{64}$' });
const Points = Type.Number({ minimum: -20_000, maximum: 20_000 });

export const RectSchema = Type.Object(
	{ x: Points, y: Points, width: Points, height: Points },
	{ additionalProperties: false }
);

export const DUTIES = ['signs', 'approves', 'fills in', 'gets a copy'] as const;
export type Duty = (typeof DUTIES)[number];

const Page = Type.Object(
	{
		width: Type.Number({ exclusiveMinimum: 0, maximum: 20_000 }),
		height: Type.Number({ exclusiveMinimum: 0, maximum: 20_000 }),
		rotate: Type.Union([Type.Literal(0), Type.Literal(90), Type.Literal(180), Type.Literal(270)])
	},
	{ additionalProperties: false }
);

/** A document of the plan: `digest` is the SHA-256 of the normalised PDF that is shown and signed. */
export const PaperSchema = Type.Object(
	{
		id: Id,
		name: Type.String({ minLength: 1, maxLength: 200 }),
		digest: Digest,
		pages: Type.Array(Page, { minItems: 1, maxItems: 2000 })
	},
	{ additionalProperties: false }
);

/** A file that goes along unchanged, such as a PDF with a signature of its own. Nothing can be placed on it. */
const AttachmentSchema = Type.Object(
	{ id: Id, name: Type.String({ minLength: 1, maxLength: 200 }), digest: Digest },
	{ additionalProperties: false }
);

export const PersonSchema = Type.Object(
	{
		id: Id,
		name: Type.String({ maxLength: 200 }),
		email: Type.String({ maxLength: 254 }),
		duty: Type.Union(DUTIES.map((duty) => Type.Literal(duty)))
	},
	{ additionalProperties: false }
);

export const StopSchema = Type.Object(
	{ id: Id, people: Type.Array(Id, { maxItems: 100 }) },
	{ additionalProperties: false }
);

export const FieldSchema = Type.Object(
	{
		id: Id,
		kind: Type.Union(['signature', 'initials', 'signing-date', 'name', 'text'].map((kind) => Type.Literal(kind))),
		person: Type.Union([Id, Type.Null()]),
		paper: Id,
		page: Type.Integer({ minimum: 0, maximum: 1999 }),
		rect: RectSchema,
		label: Type.String({ maxLength: 200 }),
		key: Type.String({ maxLength: 80 }),
		required: Type.Boolean(),
		settings: Type.Record(
			Type.String({ maxLength: 40 }),
			Type.Union([Type.String({ maxLength: 200 }), Type.Number(), Type.Boolean()])
		)
	},
	{ additionalProperties: false }
);

export const PlanSchema = Type.Object(
	{
		title: Type.String({ maxLength: 200 }),
		message: Type.String({ maxLength: 4000 }),
		days: Type.Union([Type.Integer({ minimum: 1, maximum: 730 }), Type.Null()]),
		papers: Type.Array(PaperSchema, { maxItems: 50 }),
		attachments: Type.Array(AttachmentSchema, { maxItems: 50 }),
		people: Type.Array(PersonSchema, { maxItems: 200 }),
		stops: Type.Array(StopSchema, { maxItems: 200 }),
		fields: Type.Array(FieldSchema, { maxItems: 5000 })
	},
	{ additionalProperties: false }
);

export type Plan = Static<typeof PlanSchema>;
export type Attachment = Static<typeof AttachmentSchema>;
export type Paper = Static<typeof PaperSchema>;
export type PlanPerson = Static<typeof PersonSchema>;
export type Field = Static<typeof FieldSchema>;

export function emptyPlan(): Plan {
	return { title: '', message: '', days: 14, papers: [], attachments: [], people: [], stops: [], fields: [] };
}

export function personIn(plan: Plan, id: string): PlanPerson | undefined {
	return plan.people.find((person) => person.id === id);
}
