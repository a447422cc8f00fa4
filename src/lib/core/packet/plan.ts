import { Type, type Static } from '@sinclair/typebox';
import { KEY_PATTERN, Line } from '../schema';
import { AmendsSchema } from '../amend/asked';
import { AnswerSchema } from '../field/answer';
import { IdentitySchema } from '../identity/asked';
import { NotarySchema } from '../notary/asked';
import { PinSchema } from '../page/fit/pin-schema';
import { SendingSchema } from './sending';

/**
 * A plan: all that is prepared before sending. A draft, a template and a packet all hold one.
 * The JSON Schema and the type come from this one source.
 */
const Id = Type.String({ pattern: '^[0-9A-Za-z_-]{1,40}$' });
const Digest = Type.String({ pattern: '^[0-9a-f]{64}$' });
const Points = Type.Number({ minimum: -20_000, maximum: 20_000 });

export const RectSchema = Type.Object(
	{ x: Points, y: Points, width: Points, height: Points },
	{ additionalProperties: false }
);

/** What a person may have to do. */
export const DUTIES = ['signs', 'approves', 'fills in', 'hosts', 'notarises', 'gets a copy'] as const;
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
		name: Line(200, { minLength: 1 }),
		digest: Digest,
		pages: Type.Array(Page, { minItems: 1, maxItems: 2000 }),
		/** texts that were marked in what it was made from, as still to be written */
		shaded: Type.Optional(Type.Array(Line(200), { maxItems: 50 }))
	},
	{ additionalProperties: false }
);

/** A file that goes along unchanged, such as a PDF with a signature of its own. Nothing can be placed on it. */
const AttachmentSchema = Type.Object(
	{ id: Id, name: Line(200, { minLength: 1 }), digest: Digest },
	{ additionalProperties: false }
);

/** How a person hears that it is their turn. 'link': the sender hands the link on. 'in person': their host has it. */
export const DELIVERIES = ['mail', 'mail and text', 'text', 'link', 'in person'] as const;
export type DeliveryWay = (typeof DELIVERIES)[number];

/**
 * How a person proves who they are before anything is shown. An access code stands here only as a salted hash; the sender
 * tells it another way.
 */
export const CheckSchema = Type.Union([
	Type.Object({ by: Type.Literal('code'), hash: Line(200) }, { additionalProperties: false }),
	Type.Object({ by: Type.Union([Type.Literal('mail'), Type.Literal('text')]) }, { additionalProperties: false })
]);
export type IdentityCheck = Static<typeof CheckSchema>;

/** Languages: of a person's page and letters, and of how a packet writes numbers and dates. */
export const LOCALES = [
	'en-GB',
	'en-US',
	'de-DE',
	'de-CH',
	'fr-FR',
	'es-ES',
	'it-IT',
	'nl-NL',
	'pt-PT',
	'sv-SE',
	'da-DK',
	'nb-NO',
	'fi-FI',
	'pl-PL',
	'cs-CZ',
	'el-GR',
	'hu-HU',
	'ro-RO',
	'uk-UA',
	'ar',
	'he-IL',
	'hi-IN',
	'ja-JP',
	'ko-KR',
	'zh-CN'
] as const;
const Locale = Type.Union(LOCALES.map((locale) => Type.Literal(locale)));

/** What a sender may change of a role of a template, or of the template as a whole. What is not named, they may. */
export const PERSON_LOCKS = ['name', 'address', 'duty', 'removal', 'check'] as const;
export type PersonLock = (typeof PERSON_LOCKS)[number];
export const PLAN_LOCKS = ['people', 'message', 'deadline', 'sending', 'fields', 'papers'] as const;
export type PlanLock = (typeof PLAN_LOCKS)[number];

const locks = <T extends string>(names: readonly T[]) =>
	Type.Array(Type.Union(names.map((name) => Type.Literal(name))), { maxItems: names.length });

/** A letter's subject and text; either may hold values in braces, see `core/template/values`. */
const Subject = Line(200);
const Message = Type.String({ maxLength: 4000 });

export const PersonSchema = Type.Object(
	{
		id: Id,
		name: Line(200),
		email: Line(254),
		duty: Type.Union(DUTIES.map((duty) => Type.Literal(duty))),
		organisation: Type.Optional(Line(200)),
		jobTitle: Type.Optional(Line(200)),
		/** the place in a template that this person takes; it stays when somebody has taken it */
		role: Type.Optional(Line(80)),
		/** a role that may stay empty: its stop and fields then fall away */
		optional: Type.Optional(Type.Boolean()),
		/** who says, on finishing at an earlier stop, who this is; until then they have neither name nor address */
		namedBy: Type.Optional(Id),
		/** what the sender must leave as it is */
		locked: Type.Optional(locks(PERSON_LOCKS)),
		/** what this person's letter says instead of everybody's */
		subject: Type.Optional(Subject),
		message: Type.Optional(Message),
		/** the language of their page and letters; without it, what their browser asks for */
		locale: Type.Optional(Locale),
		/** with its country code */
		phone: Type.Optional(Line(40)),
		/** without it, by mail */
		deliver: Type.Optional(Type.Union(DELIVERIES.map((way) => Type.Literal(way)))),
		/** in whose presence they do it, on whose device */
		hostedBy: Type.Optional(Id),
		/** what only they read, besides the common letter */
		note: Type.Optional(Message),
		check: Type.Optional(CheckSchema),
		/** what they show of themselves besides a code */
		identity: Type.Optional(IdentitySchema),
		/** they may sign on paper */
		ink: Type.Optional(Type.Boolean()),
		/** of whoever notarises: which act, and by which commission */
		notary: Type.Optional(NotarySchema)
	},
	{ additionalProperties: false }
);

export const StopSchema = Type.Object(
	{
		id: Id,
		people: Type.Array(Id, { maxItems: 100 }),
		/** a rule: the stop opens only where it holds once those before are done */
		when: Type.Optional(Type.String({ maxLength: 2000 })),
		/** a group: when any one of them is done, the stop is */
		anyOne: Type.Optional(Type.Boolean())
	},
	{ additionalProperties: false }
);

/** Every kind of field by its name in data; what each is, is told by its file in `core/field/kinds`. */
export const KIND_NAMES = [
	'signature',
	'initials',
	'signing-date',
	'name',
	'email',
	'organisation',
	'job-title',
	'text',
	'number',
	'date',
	'choice',
	'pick-one',
	'ticks',
	'attachment',
	'computed',
	'note',
	'image',
	'strike'
] as const;
export type KindName = (typeof KIND_NAMES)[number];

/** Whose a field is besides a person's: the sender's, to answer before sending, or everybody's, to see. */
export const SENDER = 'sender';
export const EVERYBODY = 'everybody';

/** Where a field stands that is on no page: a question that was asked before the document. */
export const ASKED = 'asked';

const RuleText = Type.String({ maxLength: 2000 });

/** One of several things to choose from: the value in data, and the text people read. */
export const OptionSchema = Type.Object(
	{ value: Line(200, { minLength: 1 }), text: Line(200) },
	{ additionalProperties: false }
);
export type Option = Static<typeof OptionSchema>;

/** What a kind is set to, by name; each kind's own schema says which there are. */
export const SettingsSchema = Type.Record(
	Line(40),
	Type.Union([
		Type.String({ maxLength: 4000 }),
		Type.Number(),
		Type.Boolean(),
		Type.Array(OptionSchema, { maxItems: 500 })
	])
);

export const FieldSchema = Type.Object(
	{
		id: Id,
		kind: Type.Union(KIND_NAMES.map((kind) => Type.Literal(kind))),
		/** a person's id, {@link SENDER}, {@link EVERYBODY}, or null for nobody yet */
		person: Type.Union([Id, Type.Null()]),
		paper: Id,
		page: Type.Integer({ minimum: 0, maximum: 1999 }),
		rect: RectSchema,
		label: Line(200),
		help: Type.Optional(Line(500)),
		/** empty, or the name of the answer; fields with the same key are twins */
		key: Type.Union([Type.Literal(''), Type.String({ pattern: KEY_PATTERN })]),
		required: Type.Boolean(),
		readOnly: Type.Optional(Type.Boolean()),
		showWhen: Type.Optional(RuleText),
		requireWhen: Type.Optional(RuleText),
		/** points; without it the text takes 11, or what fits */
		fontSize: Type.Optional(Type.Number({ minimum: 4, maximum: 72 })),
		/** false: the text keeps its size even where it runs over */
		shrink: Type.Optional(Type.Boolean()),
		align: Type.Optional(Type.Union([Type.Literal('left'), Type.Literal('middle'), Type.Literal('right')])),
		/** place in the order in which a person is led through; without it, as one reads */
		tab: Type.Optional(Type.Integer({ minimum: 1, maximum: 9999 })),
		/** what it is tied to where a person has chosen; without it, the words around it */
		pin: Type.Optional(PinSchema),
		/** what is painted over under it: the marker it came from. Page space */
		cover: Type.Optional(RectSchema),
		/** the change of words that it belongs to */
		change: Type.Optional(Id),
		settings: SettingsSchema
	},
	{ additionalProperties: false }
);

export const PlanSchema = Type.Object(
	{
		title: Line(200),
		message: Message,
		days: Type.Union([Type.Integer({ minimum: 1, maximum: 730 }), Type.Null()]),
		papers: Type.Array(PaperSchema, { maxItems: 50 }),
		attachments: Type.Array(AttachmentSchema, { maxItems: 50 }),
		people: Type.Array(PersonSchema, { maxItems: 200 }),
		stops: Type.Array(StopSchema, { maxItems: 200 }),
		fields: Type.Array(FieldSchema, { maxItems: 5000 }),
		/** what the sender has answered beforehand, by field */
		answers: Type.Optional(Type.Record(Id, AnswerSchema)),
		locale: Type.Optional(Locale),
		sending: Type.Optional(SendingSchema),
		/** the packet that this one is a new version of */
		follows: Type.Optional(Id),
		/** the completed packet that this one changes, and how */
		amends: Type.Optional(AmendsSchema),
		/** what everybody's letter has as its subject; without it, what is to be done and the title */
		subject: Type.Optional(Subject),
		/** what the sender must leave as it is */
		locked: Type.Optional(locks(PLAN_LOCKS)),
		/** the template it was made from, and which version of it */
		from: Type.Optional(
			Type.Array(
				Type.Object({ template: Id, version: Type.Integer({ minimum: 1 }) }, { additionalProperties: false }),
				{ maxItems: 20 }
			)
		)
	},
	{ additionalProperties: false }
);

export type Plan = Static<typeof PlanSchema>;
export type Attachment = Static<typeof AttachmentSchema>;
export type Paper = Static<typeof PaperSchema>;
export type PlanPerson = Static<typeof PersonSchema>;
export type Stop = Static<typeof StopSchema>;
export type Field = Static<typeof FieldSchema>;

export function emptyPlan(): Plan {
	return { title: '', message: '', days: 14, papers: [], attachments: [], people: [], stops: [], fields: [] };
}

export function personIn(plan: Plan, id: string): PlanPerson | undefined {
	return plan.people.find((person) => person.id === id);
}

/** The language whose ways of writing numbers and dates hold for the whole packet. */
export function localeOf(plan: Plan): string {
	return plan.locale ?? 'en-GB';
}

/** The locale of a language (BCP 47), or the locale itself; undefined where none is known here. */
export function localeOfLanguage(language: string | undefined): PlanPerson['locale'] {
	return LOCALES.find((one) => one === language || one.split('-')[0] === language);
}

/** How somebody who reads a language writes numbers and dates, before they stand on paper: the packet's way where it is of that language. */
export function localeFor(plan: Plan, language: string): string {
	const own = localeOf(plan);
	return own.split('-')[0] === language ? own : (localeOfLanguage(language) ?? own);
}
