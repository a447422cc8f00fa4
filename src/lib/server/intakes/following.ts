import { dayIn } from '../../core/calendar';
import type { Answers } from '../../core/field';
import { followUpsDue, type FollowUp, type Intake } from '../../core/intake';
import {
	addressOf,
	isAddress,
	localeOf,
	personIn,
	SENDER,
	type FollowedWhat,
	type PlanPerson,
	type SentPacket
} from '../../core/packet';
import { isRefusal } from '../../core/refusal';
import { filledIn, type Given } from '../../core/template';
import { chosenLanguage, wordsOf } from '../../words';
import { officeNote } from '../../words/case-mail';
import { accountById, type Account } from '../accounts';
import { inTransaction } from '../db';
import type { House } from '../house';
import { queue } from '../jobs/outbox';
import type { Message } from '../mail';
import { sendAndEnd } from '../mail/sending';
import { act, packetState } from '../packets/act';
import { copiesOf, copyFile } from '../packets/copies';
import { eventAt } from '../packets/log';
import { moveToFolder } from '../packets/office';
import { organisation } from '../settings';
import { draftFromTemplate, sendTemplate } from '../templates';
import { keepFor } from './handing-in';
import { addRow } from './rows';
import { readIntake, versionOf, type KeptIntake } from './store';

/** What follows a case by itself: found after its events, done by jobs, in the record, each once. */

/** `id`: the follow-up that is to be done; without it, those that this event brings are looked for. */
export interface FollowJob {
	packet: string;
	about?: number;
	id?: string;
}

interface Following {
	state: SentPacket;
	intake: KeptIntake;
	setting: Intake;
	owner: Account;
}

function followingOf(house: House, packet: string): Following | null {
	const state = packetState(house.db, packet);
	const row = house.db
		.prepare<[string], { intake: string; version: number }>('SELECT intake, version FROM cases WHERE packet = ?')
		.get(packet);
	const setting = row && versionOf(house, row.intake, row.version);
	const intake = row && readIntake(house, row.intake);
	if (state.status === 'none' || !setting || !intake || isRefusal(intake)) return null;
	const owner = accountById(house, intake.owner);
	return owner && { state, intake, setting, owner };
}

/** @returns null when done, or why it must be tried again */
export async function followUp(house: House, key: string, job: FollowJob, done: () => void): Promise<string | null> {
	const found = followingOf(house, job.packet);
	const one = found?.setting.then.find(({ id }) => id === job.id);
	if (!found || job.id === undefined || !one || found.state.followed.includes(one.id)) {
		inTransaction(house.db, () => {
			if (found && job.id === undefined) queueDue(house, found, job.about ?? 0);
			done();
		});
		return null;
	}
	if (one.does.is === 'letter') return sendLetter(house, key, found, one, one.does, done);
	inTransaction(house.db, () => {
		const [what, about] = happens(house, found, one);
		act(house, job.packet, { kind: 'pellum' }, { do: 'recordFollowUp', id: one.id, what, about });
		done();
	});
	return null;
}

function queueDue(house: House, { state, setting }: Following, about: number): void {
	const event = eventAt(house.db, state.packet, about);
	for (const { id } of followUpsDue(setting, state, event ? [event] : [], house.now().toISOString()))
		queue(house, 'follow', `${state.packet}:follows:${id}`, { packet: state.packet, id });
	house.changes.emit('jobs');
}

type Does<Is extends FollowUp['does']['is']> = Extract<FollowUp['does'], { is: Is }>;

/** Does what needs nobody outside, and says what came of it. */
function happens(house: House, found: Following, { id, does }: FollowUp): [FollowedWhat, string] {
	switch (does.is) {
		case 'file': {
			const no = moveToFolder(house, found.owner, found.state.packet, does.folder);
			return isRefusal(no) ? ['not done', no.say] : ['file', does.folder];
		}
		case 'row':
			return ['row', `row ${addRow(house, found.intake.id, id, found.state, does.keys)} of “${found.setting.heading}”`];
		case 'template':
			return startTemplate(house, found, does);
		default:
			throw new Error('a letter is sent, not done');
	}
}

/** Starts another template with the people and answers of this case; where it can't go by itself, it waits as a draft. */
function startTemplate(house: House, found: Following, does: Does<'template'>): [FollowedWhat, string] {
	const { state, owner } = found;
	const people: NonNullable<Given['people']> = {};
	for (const [role, from] of Object.entries(does.people)) {
		const person = personIn(state.plan, from);
		if (!person || person.name === '') continue;
		const { name, phone, locale } = person;
		people[role] = { name, email: addressOf(state, from), ...(phone && { phone }), ...(locale && { locale }) };
	}
	const template = house.db
		.prepare<[string], { title: string; json: string | null }>(
			'SELECT t.title, p.json FROM templates t LEFT JOIN plans p ON p.digest = t.plan WHERE t.id = ?'
		)
		.get(does.template);
	if (!template?.json) return ['not done', 'the template is gone, or not in use'];
	const fields = (JSON.parse(template.json) as SentPacket['plan']).fields;
	const byKey = new Map(state.plan.fields.filter(({ key }) => key !== '').map((field) => [field.key, field]));
	const carried: Record<string, Answers> = {};
	for (const field of fields) {
		const from = byKey.get(field.key);
		const answer = from && from.kind === field.kind ? state.answers[from.id] : undefined;
		if (answer && field.person) (carried[field.person] ??= {})[field.id] = answer;
	}
	const given: Given = { people, ...(carried[SENDER] && { answers: carried[SENDER] }) };
	const sent = sendTemplate(house, owner, does.template, given);
	if (!isRefusal(sent)) {
		for (const [person, answers] of Object.entries(carried))
			if (person !== SENDER) keepFor(house, sent, person, answers);
		return ['template', `${sent.reference}, “${sent.plan.title}”`];
	}
	const draft = draftFromTemplate(house, owner, does.template, given);
	return ['not done', isRefusal(draft) ? draft.say : `a draft of “${template.title}” waits: ${sent.say}`];
}

/** A letter with values and copies, to somebody of the packet or to an address of the office's choosing. */
async function sendLetter(
	house: House,
	key: string,
	found: Following,
	{ id }: FollowUp,
	does: Does<'letter'>,
	done: () => void
): Promise<string | null> {
	const { state } = found;
	const person = personIn(state.plan, does.to);
	const to = person ? addressOf(state, person.id) : does.to;
	return sendAndEnd(
		house,
		() => (isAddress(to) ? composed(house, key, found, does, person, to) : null),
		(message, delivery) => {
			const refused = message ? (delivery?.is === 'refused' ? delivery.why : null) : 'nobody to write to';
			const [what, about]: [FollowedWhat, string] = refused === null ? ['letter', to] : ['not done', refused];
			act(house, state.packet, { kind: 'pellum' }, { do: 'recordFollowUp', id, what, about });
			done();
		}
	);
}

function composed(
	house: House,
	key: string,
	{ state, owner }: Following,
	does: Does<'letter'>,
	person: PlanPerson | undefined,
	to: string
): Message {
	const { name: office, colour } = organisation(house.db);
	const facts = {
		plan: state.plan,
		answers: state.answers,
		sender: state.sender,
		until: state.deadline && dayIn(state.zone, state.deadline),
		locale: person?.locale ?? localeOf(state.plan)
	};
	return {
		id: key.replaceAll(/[^\w.-]/g, '.'),
		to,
		replyTo: { name: owner.name, address: owner.email },
		...officeNote(
			{
				to: person?.name ?? '',
				from: owner.name,
				office,
				subject: filledIn(does.subject, facts) || state.plan.title,
				message: filledIn(does.message, facts),
				reference: state.reference,
				colour
			},
			wordsOf(chosenLanguage(person?.locale, state.plan.locale))
		),
		attachments: does.copies ? copiesOf(house.db, state).flatMap(({ what }) => copyFile(house, state, what) ?? []) : []
	};
}
