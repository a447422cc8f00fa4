import { Type, type Static } from '@sinclair/typebox';
import { canonicalJson } from '../../core/audit';
import { AnswerSchema, fieldsOf, isFile, prefilled, type Answers, type FileAnswer } from '../../core/field';
import {
	addressOf,
	EVERYBODY,
	localeOf,
	personIn,
	type Attachment,
	type Field,
	type From,
	type Names,
	type Paper,
	type PlanPerson,
	type SentPacket
} from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { stopOf, toBeNamedBy } from '../../core/route';
import { letterFor } from './letters';
import { isOver } from '../../core/calendar';
import { CONSENT, consentText } from '../../words/consent';
import { border } from '../border';
import type { House } from '../house';
import { sha256Text } from '../ids';
import { act, packetState } from './act';
import { copiesOf } from './copies';
import { findLink } from './links';
import { checkPrintable } from './marks';
import { keepFile, keepPicture } from './files';

const AnswersSchema = Type.Record(Type.String({ pattern: '^[0-9A-Za-z_-]{1,40}$' }), AnswerSchema, {
	maxProperties: 5000
});
export const FinishSchema = Type.Object(
	{
		answers: AnswersSchema,
		names: Type.Optional(
			Type.Record(
				Type.String({ pattern: '^[0-9A-Za-z_-]{1,40}$' }),
				Type.Object(
					{ name: Type.String({ maxLength: 200 }), email: Type.String({ maxLength: 254 }) },
					{ additionalProperties: false }
				),
				{ maxProperties: 200 }
			)
		)
	},
	{ additionalProperties: false }
);
export const DeclineSchema = Type.Object({ reason: Type.String({ maxLength: 2000 }) }, { additionalProperties: false });
export type Given = Static<typeof AnswersSchema>;
export const finishBorder = border(FinishSchema);
export const declineBorder = border(DeclineSchema);

/** Somebody at the door with a link that is good for something. */
export interface Visitor {
	packet: SentPacket;
	person: PlanPerson;
}

/** What a link leads to. Refuses `no-link` for a wrong one and `link-revoked` for one that a newer replaced. */
export function visit(house: House, token: string): Visitor | Refusal {
	const link = /^[\w-]{43}$/.test(token) ? findLink(house.db, token) : null;
	if (!link) return refuse('no-link', 'This link is not complete, or not from here. Open it from the message again.');
	if (link.revoked)
		return refuse('link-revoked', 'This link has been replaced by a newer one. Look for the latest message.');
	const packet = packetState(house.db, link.packet);
	const person = packet.status === 'none' ? undefined : personIn(packet.plan, link.person);
	if (packet.status === 'none' || !person) return refuse('no-link', 'This link leads nowhere any more.');
	return { packet, person };
}

/** The page as this person has it now. A union: each of its states shows something else. */
export type SigningView = {
	title: string;
	reference: string;
	sender: string;
	organisation: string;
	deadline: string | null;
	zone: string;
	locale: string;
	/** the moment at which this was made, ISO 8601 */
	now: string;
	message: string;
	me: { id: string; name: string; duty: PlanPerson['duty'] };
	route: { name: string; duty: string; stop: number; state: string; me: boolean }[];
	papers: Paper[];
	attachments: Attachment[];
	fields: Field[];
	answers: Answers;
} & (
	| {
			state: 'turn';
			consented: boolean;
			saved: Answers;
			savedAt: string | null;
			/** whom this person names on finishing */
			naming: { id: string; role: string; duty: string }[];
	  }
	| { state: 'waiting' }
	| { state: 'finished'; complete: boolean; copies: { what: string; name: string }[] }
	| { state: 'ended'; why: string }
);

/** Builds what the signing page shows. Others' unfinished answers are never in it. */
export function signingView(house: House, { packet, person }: Visitor): SigningView {
	const standing = packet.people[person.id]!;
	const base = {
		title: packet.plan.title,
		reference: packet.reference,
		sender: packet.sender.name,
		organisation: packet.sender.organisation,
		deadline: packet.deadline,
		zone: packet.zone,
		locale: localeOf(packet.plan),
		now: house.now().toISOString(),
		message: letterFor(packet, person).message,
		me: { id: person.id, name: person.name, duty: person.duty },
		route: packet.plan.people.map((p) => ({
			name: p.name || p.role || '',
			duty: p.duty,
			stop: stopOf(packet.plan, p.id),
			state: packet.people[p.id]!.is,
			me: p.id === person.id
		})),
		papers: packet.plan.papers,
		attachments: packet.plan.attachments,
		fields: packet.plan.fields.filter(
			(f) => f.person === person.id || f.person === EVERYBODY || packet.answers[f.id] !== undefined
		),
		answers: packet.answers
	};
	if (packet.status === 'completed' || (packet.status === 'out' && standing.is === 'done'))
		return {
			...base,
			state: 'finished',
			complete: packet.status === 'completed',
			copies: copiesOf(packet).map(({ what, name }) => ({ what, name }))
		};
	if (packet.status !== 'out')
		return { ...base, papers: [], attachments: [], fields: [], answers: {}, state: 'ended', why: whyEnded(packet) };
	if (standing.is === 'waiting')
		return { ...base, papers: [], attachments: [], fields: [], answers: {}, state: 'waiting' };
	if (isOver(packet.deadline, house.now().toISOString()))
		return {
			...base,
			papers: [],
			attachments: [],
			fields: [],
			answers: {},
			state: 'ended',
			why: 'The time for this has run out. Ask the sender for a new one.'
		};
	const saved = readSaved(house, packet.packet, person.id);
	return {
		...base,
		state: 'turn',
		consented: standing.is === 'opened' && standing.consented === consentDigest(),
		saved: { ...prefilled(packet.plan, person.id, contextOf(house, packet, person)), ...saved?.answers },
		savedAt: saved?.savedAt ?? null,
		naming: toBeNamedBy(packet.plan, person.id).map(({ id, role = 'The next person', duty }) => ({ id, role, duty }))
	};
}

function whyEnded(packet: SentPacket): string {
	switch (packet.status) {
		case 'withdrawn':
			return `${packet.sender.name} has withdrawn this: ${packet.reason}`;
		case 'declined':
			return `${personIn(packet.plan, packet.person)?.name ?? 'Somebody'} declined, so this has ended.`;
		case 'expired':
			return 'The time for this has run out. Ask the sender for a new one.';
		default:
			return 'This has ended.';
	}
}

export function consentDigest(): string {
	return `${CONSENT.version} ${sha256Text(consentText())}`;
}

/** Records that it was opened, once. Called when the person goes on from the first view, not when a mail robot looks. */
export function openAndConsent(house: House, visitor: Visitor, from: From): SentPacket | Refusal {
	const { packet, person } = visitor;
	const by = { kind: 'person', person: person.id } as const;
	const opened = act(house, packet.packet, by, { do: 'openPaper', person: person.id, from });
	if (isRefusal(opened)) return opened;
	return act(house, packet.packet, by, { do: 'consent', person: person.id, text: consentDigest(), from });
}

/** Keeps what was entered so far. Not in the record: nothing counts before the person finishes. */
export function saveAnswers(house: House, { packet, person }: Visitor, given: Given): { savedAt: string } | Refusal {
	if (packet.status !== 'out' || packet.people[person.id]!.is === 'done' || packet.people[person.id]!.is === 'waiting')
		return refuse('not-your-turn', 'Nothing can be entered here now.');
	const own = new Set(fieldsOf(packet.plan, person.id).map((field) => field.id));
	const answers = Object.fromEntries(Object.entries(given).filter(([id]) => own.has(id)));
	const savedAt = house.now().toISOString();
	house.db
		.prepare(
			`INSERT INTO saved_answers (packet, person, answers, saved_at) VALUES (?, ?, ?, ?)
			 ON CONFLICT (packet, person) DO UPDATE SET answers = excluded.answers, saved_at = excluded.saved_at`
		)
		.run(packet.packet, person.id, JSON.stringify(answers), savedAt);
	return { savedAt };
}

/** Finishes for this person. Pressed twice it is done once. */
export function finish(
	house: House,
	{ packet, person }: Visitor,
	given: Given,
	from: From,
	names: Names = {}
): SentPacket | Refusal {
	const no = checkPrintable(house.db, packet.plan, given);
	if (no) return no;
	const shown = sha256Text(
		canonicalJson({
			plan: packet.planDigest,
			papers: packet.plan.papers.map((p) => p.digest),
			earlier: packet.answers,
			own: given
		})
	);
	return act(
		house,
		packet.packet,
		{ kind: 'person', person: person.id },
		{ do: 'finish', person: person.id, answers: given, names, shown, from },
		() => house.db.prepare('DELETE FROM saved_answers WHERE packet = ? AND person = ?').run(packet.packet, person.id)
	);
}

export function decline(house: House, { packet, person }: Visitor, reason: string, from: From): SentPacket | Refusal {
	return act(
		house,
		packet.packet,
		{ kind: 'person', person: person.id },
		{ do: 'decline', person: person.id, reason: reason.trim(), from }
	);
}

/** A picture to sign with: made fit for stamping, kept, and named by its digest. */
export async function addMarkPicture(
	house: House,
	{ packet, person }: Visitor,
	bytes: Uint8Array
): Promise<{ digest: string } | Refusal> {
	if (packet.status !== 'out' || packet.people[person.id]!.is === 'done')
		return refuse('not-your-turn', 'Nothing can be entered here now.');
	return keepPicture(house, bytes);
}

/** A file handed in for one of this person's fields: judged by its content, kept unchanged. */
export async function addFile(
	house: House,
	{ packet, person }: Visitor,
	fieldId: string,
	name: string,
	bytes: Uint8Array
): Promise<FileAnswer | Refusal> {
	if (packet.status !== 'out' || packet.people[person.id]!.is === 'done')
		return refuse('not-your-turn', 'Nothing can be entered here now.');
	const field = fieldsOf(packet.plan, person.id).find((f) => f.id === fieldId && f.kind === 'attachment');
	if (!field) return refuse('not-your-field', 'This place takes no file of yours.');
	return keepFile(house, field, name, bytes);
}

/** Whether this visitor may see a picture: one of the plan's, in the packet's answers, or in their own saved ones. */
export function maySeePicture(house: House, { packet, person }: Visitor, digest: string): boolean {
	const saved = readSaved(house, packet.packet, person.id)?.answers ?? {};
	return (
		packet.plan.fields.some((f) => f.kind === 'image' && f.settings['picture'] === digest) ||
		[...Object.values(packet.answers), ...Object.values(saved)].some(
			(a) => 'way' in a && a.way === 'picture' && a.digest === digest
		)
	);
}

/** A file this visitor may fetch: one that stands in the packet's answers, or that they handed in themselves. */
export function fileFor(house: House, { packet, person }: Visitor, digest: string): FileAnswer | null {
	const saved = readSaved(house, packet.packet, person.id)?.answers ?? {};
	return (
		[...Object.values(packet.answers), ...Object.values(saved)].filter(isFile).find((a) => a.file === digest) ?? null
	);
}

function readSaved(house: House, packet: string, person: string): { answers: Answers; savedAt: string } | null {
	const row = house.db
		.prepare<[string, string], { answers: string; saved_at: string }>(
			'SELECT answers, saved_at FROM saved_answers WHERE packet = ? AND person = ?'
		)
		.get(packet, person);
	return row ? { answers: JSON.parse(row.answers) as Answers, savedAt: row.saved_at } : null;
}

/** What a kind may know of this person when it fills in. */
function contextOf(house: House, packet: SentPacket, person: PlanPerson) {
	return {
		person: { ...person, email: addressOf(packet, person.id) },
		now: house.now().toISOString(),
		zone: packet.zone,
		locale: localeOf(packet.plan)
	};
}
