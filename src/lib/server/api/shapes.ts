import { Type, type Static } from '@sinclair/typebox';
import { DELIVERIES, DUTIES, LOCALES } from '../../core/packet';
import { Line } from '../../core/schema';
import { Digest, Id, Moment, named, oneOf, orNull, strict } from './schemas';

/** What the API takes and gives, each shape once: it is checked by these, and described by them. */

export const Problem = named(
	'Problem',
	Type.Object(
		{
			type: Type.String({ description: 'urn:pellum:problem:CODE' }),
			title: Type.String(),
			status: Type.Integer(),
			code: Type.String({ description: 'stable, for programs' }),
			detail: Type.String({ description: 'a sentence for a person' }),
			pointer: Type.Optional(Type.String({ description: 'what in the body it is about' })),
			instance: Type.String({ description: 'the number of this request, as the log has it' })
		},
		strict
	)
);

const STATES = ['waiting', 'notified', 'opened', 'done', 'declined', 'unreachable', 'skipped', 'spared'];

export const PersonState = named(
	'PersonState',
	Type.Object(
		{
			id: Type.String(),
			name: Type.String(),
			email: Type.String(),
			phone: Type.String(),
			duty: Type.String({ examples: [...DUTIES] }),
			delivery: Type.String({ examples: [...DELIVERIES] }),
			state: Type.String({ examples: STATES }),
			why: Type.String({ description: 'why they declined, or can’t be reached' }),
			since: orNull(Moment)
		},
		strict
	)
);

const brief = {
	id: Id,
	reference: Type.String({ examples: ['P-7K3QM'] }),
	title: Type.String(),
	status: oneOf(['out', 'held', 'completed', 'declined', 'withdrawn', 'expired']),
	folder: Type.String(),
	sender: Type.String(),
	sentAt: Moment,
	deadline: orNull(Moment),
	endedAt: orNull(Moment)
};

export const PacketBrief = named(
	'PacketBrief',
	Type.Object({ ...brief, template: orNull(Type.String()), since: Moment }, strict)
);

export const PacketState = named(
	'Packet',
	Type.Object(
		{
			...brief,
			why: Type.String({ description: 'how it stands, in a sentence' }),
			sealed: Type.Boolean({ description: 'its sealed copies can be had' }),
			people: Type.Array(PersonState),
			documents: Type.Array(Type.Object({ id: Type.String(), name: Type.String(), digest: Digest }, strict)),
			from: Type.Array(Type.Object({ template: Type.String(), version: Type.Integer() }, strict)),
			follows: orNull(Id),
			followedBy: orNull(Id)
		},
		strict
	)
);

export const Sent = named('Sent', Type.Object({ id: Id, reference: Type.String() }, strict));
export const Done = named('Done', Type.Object({ done: Type.Literal(true) }, strict));
export const DONE: Static<typeof Done> = { done: true };

export const Someone = named(
	'Someone',
	Type.Object(
		{
			name: Type.Optional(Line(200)),
			email: Type.Optional(Line(254)),
			phone: Type.Optional(Line(40, { description: 'with its country code' })),
			note: Type.Optional(Type.String({ maxLength: 4000, description: 'what only they read' })),
			language: Type.Optional(oneOf(LOCALES)),
			delivery: Type.Optional(oneOf(['mail', 'text', 'mail and text', 'link'] as const))
		},
		strict
	)
);

/** What a packet is sent with, whatever it is made from. */
const letter = {
	days: Type.Optional(Type.Integer({ minimum: 1, maximum: 730, description: 'to complete' })),
	subject: Type.Optional(Line(200)),
	message: Type.Optional(Type.String({ maxLength: 4000 }))
};

export const FromTemplate = named(
	'FromTemplate',
	Type.Object(
		{
			template: Id,
			title: Type.Optional(Line(200)),
			people: Type.Optional(
				Type.Record(Type.String(), Someone, {
					description: 'by the name of their role, as the template’s needs have it'
				})
			),
			answers: Type.Optional(
				Type.Record(Type.String(), Type.Union([Type.String({ maxLength: 4000 }), Type.Number(), Type.Boolean()]), {
					description: 'the sender’s, by key or label'
				})
			),
			...letter
		},
		strict
	)
);

export const NewDraft = named(
	'NewDraft',
	Type.Object(
		{
			title: Line(200, { minLength: 1 }),
			people: Type.Array(
				Type.Object(
					{
						name: Line(200, { minLength: 1 }),
						email: Line(254, { minLength: 3 }),
						role: Type.Optional(Line(80, { description: 'the name by which markers in documents call them' })),
						duty: Type.Optional(oneOf(['signs', 'approves', 'fills in', 'gets a copy'] as const)),
						language: Type.Optional(oneOf(LOCALES))
					},
					strict
				),
				{ maxItems: 50, description: 'one after the other' }
			),
			...letter
		},
		strict
	)
);

export const TemplateBrief = named(
	'TemplateBrief',
	Type.Object(
		{
			id: Id,
			title: Type.String(),
			description: Type.String(),
			folder: Type.String(),
			owner: Type.String(),
			version: Type.Integer({ description: '0 where it is not in use yet' }),
			changedAt: Moment
		},
		strict
	)
);

export const TemplateNeeds = named(
	'Template',
	Type.Object(
		{
			id: Id,
			title: Type.String(),
			version: Type.Integer(),
			people: Type.Array(
				Type.Object(
					{ role: Type.String(), duty: Type.String(), optional: Type.Boolean(), open: Type.Boolean() },
					strict
				),
				{ description: 'in the order of the route; `open`: somebody is to be named' }
			),
			answers: Type.Array(
				Type.Object(
					{
						key: Type.String(),
						label: Type.String(),
						kind: Type.String(),
						needed: Type.Boolean(),
						choices: Type.Array(Type.String())
					},
					strict
				)
			)
		},
		strict
	)
);

export const Document = named(
	'Document',
	Type.Object(
		{
			digest: Digest,
			name: Type.String(),
			pages: Type.Integer(),
			attached: Type.Boolean({ description: 'it has a signature of its own and can only go along as it is' }),
			fields: Type.Integer({ description: 'how many markers in it became fields' }),
			notes: Type.Array(Type.String())
		},
		strict
	)
);

export const DraftShape = named(
	'Draft',
	Type.Object(
		{
			id: Id,
			title: Type.String(),
			savedAt: Moment,
			plan: Type.Unknown({ description: 'all that is prepared: people, route, documents, fields, letters' }),
			open: Type.Array(Type.String(), { description: 'what stands between it and sending' })
		},
		strict
	)
);

export const CaseBrief = named(
	'Case',
	Type.Object(
		{
			id: Id,
			visitor: Type.String(),
			email: Type.String(),
			begunAt: Moment,
			/** when they were last at it */
			seenAt: Moment,
			standing: oneOf(['begun', 'left', 'handed in', 'waiting', 'done', 'ended', 'hidden']),
			packet: orNull(Id),
			reference: Type.String()
		},
		strict
	)
);

export const BatchBrief = named(
	'Batch',
	Type.Object(
		{
			id: Id,
			name: Type.String(),
			template: Id,
			going: oneOf(['rests', 'goes', 'pauses']),
			stopped: Type.String(),
			counts: Type.Record(Type.String(), Type.Integer(), {
				description: 'rows by what becomes of them: ready, twice, faulty, left out, gone; of those gone: have, out'
			})
		},
		strict
	)
);

export const BatchRow = named(
	'BatchRow',
	Type.Object(
		{
			line: Type.Integer({ description: 'in the sheet, from 1' }),
			is: Type.String(),
			says: Type.String(),
			cells: Type.Array(Type.String()),
			packet: orNull(Id),
			since: orNull(Moment)
		},
		strict
	)
);

export const CopyShape = named(
	'Copy',
	Type.Object({ what: Type.String(), name: Type.String(), digest: Digest }, strict)
);

export const PersonData = named(
	'PersonData',
	Type.Object(
		{
			email: Type.String(),
			packets: Type.Array(
				Type.Object(
					{
						id: Id,
						reference: Type.String(),
						title: Type.String(),
						status: Type.String(),
						sentAt: Moment,
						name: Type.String({ description: 'as they are called there' })
					},
					strict
				)
			)
		},
		strict
	)
);
