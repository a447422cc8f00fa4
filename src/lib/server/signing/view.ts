import { dayIn, isOver, meetingIn } from '../../core/calendar';
import { isFile, prefilled, type Answers, type FileAnswer } from '../../core/field';
import {
	addressOf,
	EVERYBODY,
	isOpen,
	isSessionOpen,
	isShut,
	isWatched,
	localeOf,
	personIn,
	phoneOf,
	stillAt,
	type Attachment,
	type Field,
	type Paper,
	type PlanPerson,
	type SeenPart,
	type SentPacket,
	type WordingRequest
} from '../../core/packet';
import type { IdentityToShow } from '../../core/identity';
import type { PaperToBring } from '../../core/paper';
import { beforeNotary, guestsOf, notaryIn, ruleOfNaming, stopOf, toBeNamedBy } from '../../core/route';
import { wordsOf, type Words } from '../../words';
import type { House } from '../house';
import { CODE_MINUTES } from '../packets/codes';
import { notaryOfPlan } from '../notary/notaries';
import { copiesOf } from '../packets/copies';
import { fitsField } from '../packets/plan-border';
import { letterFor } from '../packets/letters';
import { unveiled } from '../packets/private-words';
import { CODES_ALLOWED } from './identity';
import { consentDigest } from './consenting';
import { identityState } from '../identity';
import { countsStumbles } from '../pace';
import { paperState } from '../paper/bringing-view';
import { readSaved } from './keeping';
import type { Visitor } from './visit';
import { openedVersion } from './changed';

/** The page as this person has it now. A union: each of its states shows something else. */
export type SigningView = {
	title: string;
	sender: string;
	organisation: string;
	me: { id: string; name: string; duty: PlanPerson['duty'] };
	/** the moment at which this was made, ISO 8601 */
	now: string;
	zone: string;
	/** the last day in words of the page's language, or null */
	until: string | null;
	/** the notary before whom it is done; null where there is none */
	notary: BeforeNotary | null;
} & (
	| { state: 'code'; by: 'code' | 'mail' | 'text'; to: string; minutes: number; left: number }
	| ({ state: 'identity' } & IdentityToShow)
	| { state: 'waiting' }
	| { state: 'held' }
	/** shut, while the sender's office corrects it */
	| { state: 'correcting' }
	/** `stopped`: it ended for everybody, not for this person only */
	| { state: 'ended'; why: string; stopped: boolean }
	| ({ state: 'turn' } & Shown & Turn)
	| ({ state: 'so far' } & Shown)
	| ({ state: 'finished'; complete: boolean; copies: { what: string; name: string }[]; host: string | null } & Shown)
);

/** What somebody is told of the session that their part belongs to. */
interface BeforeNotary {
	name: string;
	jurisdiction: string;
	/** the appointment in words; null where none is set */
	when: string | null;
	minutes: number;
	/** '' where none is shown */
	fee: string;
	/** whether they can finish their part now, on their page */
	may: boolean;
}

/** What is shown to whoever may see the documents. */
interface Shown {
	reference: string;
	locale: string;
	message: string;
	route: { name: string; duty: string; stop: number; state: string; me: boolean }[];
	papers: Paper[];
	attachments: Attachment[];
	fields: Field[];
	answers: Answers;
}

interface Turn {
	/** digest of the plan: what is shown is made anew when it is another */
	version: string;
	/** what was corrected since this person opened it, and they have not been shown yet */
	corrected: SeenPart[];
	/** it is a new version of one that they had opened */
	earlier: boolean;
	consented: boolean;
	saved: Answers;
	savedAt: string | null;
	/** what the sender, or who named them, wrote to this person alone */
	note: string;
	/** whom this person names on finishing */
	naming: { id: string; role: string; duty: string; when: string | null }[];
	/** whom this person hosts */
	guests: { id: string; name: string; done: boolean }[];
	/** who hosts this person, on whose device they are; null where nobody does */
	host: string | null;
	may: { handOver: boolean; wording: boolean };
	/** somebody else of their group could do it as well */
	group: boolean;
	wordings: WordingRequest[];
	/** where they are with signing on paper; null where they can't */
	paper: PaperToBring | null;
	/** whether the time on each page is kept */
	seen: boolean;
	/** whether it is counted where people stumble */
	stumbles: boolean;
}

/** Builds what the signing page shows. Others' unfinished answers are never in it, and nothing before a proof that is wanted. */
export function signingView(house: House, visitor: Visitor, language = 'en'): SigningView {
	const { packet, person } = visitor;
	const words = wordsOf(language);
	const now = house.now().toISOString();
	const base = {
		title: packet.plan.title,
		sender: packet.sender.name,
		organisation: packet.sender.organisation,
		me: { id: person.id, name: person.name, duty: person.duty },
		now,
		zone: packet.zone,
		until: packet.deadline && dayIn(packet.zone, packet.deadline, languageTag(language, person)),
		notary: beforeWhom(house, visitor, languageTag(language, person))
	};
	const why = whyEnded(packet, person, words, now);
	if (why) return { ...base, state: 'ended', why, stopped: packet.people[person.id]!.is !== 'skipped' };
	if (isShut(packet, now) && isOpen(packet) && stillAt(packet).includes(person.id))
		return { ...base, state: 'correcting' };
	if (!visitor.coded) return { ...base, ...codeState(packet, person) };
	if (!visitor.proved && packet.people[person.id]!.is !== 'done')
		return { ...base, ...(packet.status === 'held' ? ({ state: 'held' } as const) : identityState(house, visitor)) };
	const standing = packet.people[person.id]!;
	const shown = shownTo(house, packet, person);
	if (packet.status === 'completed' || standing.is === 'done')
		return {
			...base,
			...shown,
			state: 'finished',
			complete: packet.status === 'completed',
			copies: copiesOf(house.db, packet).map(({ what, name }) => ({ what, name })),
			host: visitor.guest ? hostOf(packet, person) : null
		};
	if (packet.status === 'held') return { ...base, state: 'held' };
	if (standing.is === 'waiting')
		return isSoFar(packet, person) ? { ...base, ...shown, state: 'so far' } : { ...base, state: 'waiting' };
	return { ...base, ...shown, state: 'turn', ...turnOf(house, visitor) };
}

/** Only while the session is to come or going on, and for whoever has a part in it. */
function beforeWhom(house: House, { packet, person, proved }: Visitor, tag: string): BeforeNotary | null {
	const notary = notaryIn(packet.plan);
	const commission = notary && notaryOfPlan(house.db, packet.plan);
	if (!notary?.notary || !commission || !proved || !isSessionOpen(packet)) return null;
	if (person.id !== notary.id && !beforeNotary(packet.plan).some(({ id }) => id === person.id)) return null;
	const { appointment, turn } = packet.session;
	return {
		name: commission.name,
		jurisdiction: commission.jurisdiction,
		when: appointment && meetingIn(packet.zone, appointment.starts, tag),
		minutes: appointment?.minutes ?? 0,
		fee: commission.fees[notary.notary.act] ?? '',
		may: person.id !== notary.id && (!isWatched(packet.plan) || turn === person.id)
	};
}

/** `de` written as the person's own `de-CH` where that is known. */
export function languageTag(language: string, person: PlanPerson): string {
	return person.locale?.startsWith(language) ? person.locale : language === 'en' ? 'en-GB' : language;
}

function shownTo(house: House, packet: SentPacket, person: PlanPerson): Shown {
	const { plan } = packet;
	return {
		reference: packet.reference,
		locale: localeOf(plan),
		message: letterFor(house.db, packet, person).message,
		route: plan.people
			.filter((p) => packet.people[p.id]?.is !== 'skipped')
			.map((p) => ({
				name: p.name || p.role || '',
				duty: p.duty,
				stop: stopOf(plan, p.id),
				state: packet.people[p.id]!.is,
				me: p.id === person.id
			})),
		papers: plan.papers,
		attachments: plan.attachments,
		fields: plan.fields.filter(
			(f) => f.person === person.id || f.person === EVERYBODY || packet.answers[f.id] !== undefined
		),
		answers: packet.answers
	};
}

function turnOf(house: House, visitor: Visitor): Turn {
	const { packet, person, guest } = visitor;
	const { plan } = packet;
	const standing = packet.people[person.id]!;
	const saved = readSaved(house, packet.packet, person.id);
	const text = standing.is === 'opened' ? standing.consented : null;
	return {
		// scanned pages take the place of those that went out
		version: [packet.planDigest, ...plan.papers.map((paper) => paper.digest.slice(0, 8))].join('.'),
		corrected: packet.toTell[person.id] ?? [],
		earlier: openedVersion(house, visitor) !== null,
		consented: text !== null && text === consentDigest(text.split('-')[0]!, person.duty),
		saved: {
			...prefilled(plan, person.id, {
				person: { ...person, email: addressOf(packet, person.id) },
				now: house.now().toISOString(),
				zone: packet.zone,
				locale: localeOf(plan)
			}),
			...Object.fromEntries(
				Object.entries(saved?.answers ?? {}).filter(([id, answer]) =>
					plan.fields.some((f) => f.id === id && f.person === person.id && fitsField(f, answer))
				)
			)
		},
		savedAt: saved?.savedAt ?? null,
		note: unveiled(house.db, person.note ?? ''),
		naming: toBeNamedBy(plan, person.id).map(({ id, role = '', duty }) => ({
			id,
			role,
			duty,
			when: ruleOfNaming(plan, person.id, id)
		})),
		guests: guestsOf(plan, person.id).map(({ id, name }) => ({ id, name, done: packet.people[id]!.is === 'done' })),
		host: guest ? hostOf(packet, person) : null,
		may: {
			handOver: plan.sending?.handOver === true && person.deliver !== 'in person',
			wording: plan.sending?.wording === true
		},
		group: isOpen(packet) && plan.stops[packet.stop]?.anyOne === true,
		wordings: packet.wordings.filter((one) => one.person === person.id),
		paper: guest ? null : paperState(house, packet, person),
		seen: plan.sending?.seenPages === true,
		stumbles: countsStumbles(house.db, packet)
	};
}

function hostOf(packet: SentPacket, person: PlanPerson): string | null {
	return personIn(packet.plan, person.hostedBy ?? '')?.name ?? null;
}

/** Whether somebody who gets a copy may see the state at this point: the sender wants it, and the route has come to them. */
function isSoFar(packet: SentPacket, person: PlanPerson): boolean {
	return (
		person.duty === 'gets a copy' &&
		packet.plan.sending?.earlyCopies === true &&
		isOpen(packet) &&
		packet.stop >= stopOf(packet.plan, person.id)
	);
}

function codeState(packet: SentPacket, person: PlanPerson) {
	const by = person.check?.by ?? 'code';
	const to =
		by === 'mail' ? hidden(addressOf(packet, person.id), '@') : by === 'text' ? hidden(phoneOf(packet, person.id)) : '';
	const wrong = packet.proofs[person.id]?.wrong ?? 0;
	return packet.status === 'held'
		? ({ state: 'held' } as const)
		: ({ state: 'code', by, to, minutes: CODE_MINUTES, left: CODES_ALLOWED - wrong } as const);
}

/** Enough of an address to know it again, not enough to learn it. */
function hidden(text: string, upTo?: string): string {
	const end = upTo === undefined ? text.length - 3 : text.indexOf(upTo);
	return [...text].map((letter, i) => (i === 0 || i >= end ? letter : '•')).join('');
}

/** Why there is nothing here for this person any more, in their language; null while there is. */
function whyEnded(packet: SentPacket, person: PlanPerson, words: Words, now: string): string | null {
	const standing = packet.people[person.id]!;
	switch (packet.status) {
		case 'withdrawn':
			return words('end.withdrawn', { reason: packet.reason });
		case 'declined':
			// the office ended it for reasons of its own, which are nobody's
			if (packet.reason === '') return words('text.ended', { title: packet.plan.title });
			return packet.person === person.id
				? words('end.you declined')
				: words('end.declined', { name: personIn(packet.plan, packet.person)?.name ?? '' });
		case 'expired':
			return words('end.expired');
		case 'completed':
			if (standing.is !== 'skipped' && standing.is !== 'declined') return null;
	}
	if (standing.is === 'skipped') return words(standing.why === 'group' ? 'end.spared' : 'end.skipped');
	if (standing.is === 'declined')
		return standing.reason === '' ? words('text.ended', { title: packet.plan.title }) : words('end.you declined');
	if (isOpen(packet) && isOver(packet.deadline, now) && standing.is !== 'done') return words('end.expired');
	return null;
}

/** Whether this visitor may see a picture: one of the plan's, in the packet's answers, or in their own saved ones. */
export function maySeePicture(house: House, { packet, person, proved }: Visitor, digest: string): boolean {
	if (!proved) return false;
	const saved = readSaved(house, packet.packet, person.id)?.answers ?? {};
	return (
		packet.plan.fields.some((f) => f.kind === 'image' && f.settings['picture'] === digest) ||
		[...Object.values(packet.answers), ...Object.values(saved)].some(
			(a) => 'way' in a && a.way === 'picture' && a.digest === digest
		)
	);
}

/** A file this visitor may fetch: one that stands in the packet's answers, or that they handed in themselves. */
export function fileFor(house: House, { packet, person, proved }: Visitor, digest: string): FileAnswer | null {
	if (!proved) return null;
	const saved = readSaved(house, packet.packet, person.id)?.answers ?? {};
	return (
		[...Object.values(packet.answers), ...Object.values(saved)].filter(isFile).find((a) => a.file === digest) ?? null
	);
}
