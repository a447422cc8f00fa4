import { casePlan, closedNow, laterFault } from '../../core/intake';
import { isoDay } from '../../core/calendar';
import type { Answers } from '../../core/field';
import type { SentPacket } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { stopOf } from '../../core/route';
import { accountById } from '../accounts';
import { inTransaction } from '../db';
import type { House } from '../house';
import { packetState } from '../packets/act';
import { newLink } from '../packets/links';
import { sendPlan, trimmed } from '../packets/sending';
import { organisation } from '../settings';
import { caseAt, checkedEntered, wayOf, type Case } from './case';
import { readIntake, versionOf } from './store';
import { strangerFault } from './proving';
import { handedFrom, TOO_MANY } from './visiting';

/** What comes of a case: a packet whose first person finds filled in what was answered. */
export interface HandedIn {
	packet: string;
	reference: string;
	/** where the visitor goes on to sign; null where it is somebody else's turn */
	to: string | null;
	/** whose turn it is */
	name: string;
}

/**
 * A case is handed in: its answers are judged once more, its packet is sent, and the first person of it finds filled in what was
 * answered. Pressed twice it is one packet. Refuses what `casePlan` refuses, an address that is not proved, and one case too many.
 */
export function handIn(house: House, token: string, wanted: unknown, address: string): HandedIn | Refusal {
	return inTransaction(house.db, () => {
		const one = caseAt(house, token);
		if (isRefusal(one)) return one;
		if (one.packet !== null) return handedIn(house, one, packetState(house.db, one.packet) as SentPacket);
		const given = checkedEntered(one, wanted);
		if (isRefusal(given)) return given;
		const intake = readIntake(house, one.intake);
		if (isRefusal(intake)) return intake;
		const { starting } = given;
		const email = starting.visitor.email.trim();
		// whoever of the office has taken it over stands for it
		const taker = one.byOffice && one.takenBy !== null ? accountById(house, one.takenBy) : null;
		const no = (taker ? null : (strangerFault(one, email) ?? unproved(one, email))) ?? full(house, one, intake.handed);
		if (no) return no;
		if (!taker && handedFrom(house, one.intake, address) >= one.setting.perAddress) return TOO_MANY;
		const way = wayOf(house, one, given.answers);
		const language = starting.visitor.locale ?? one.language;
		const prepares = taker !== null || starting.prepares !== null;
		const by = { ...starting, visitor: { ...starting.visitor, locale: language } };
		const made = casePlan(one.plan, one.setting, way, by, prepares);
		if (isRefusal(made)) return made;
		const owner = accountById(house, intake.owner);
		if (!owner) return refuse('no-owner', 'Whoever made this page has no account here any more. Write to the office.');
		const sent = sendPlan(house, owner, trimmed(made.plan), {
			begun: {
				intake: one.intake,
				account: owner.id,
				heading: one.setting.heading,
				by: taker ? { name: taker.name, email: taker.email } : { name: starting.visitor.name.trim(), email },
				prepares,
				proved: taker === null && one.proved,
				entered: Object.keys(made.answers)
			}
		});
		if (isRefusal(sent)) return sent;
		keepFor(house, sent, one.setting.starter, made.answers);
		const now = house.now().toISOString();
		house.db
			.prepare(
				`UPDATE cases SET handed_at = ?, seen_at = ?, packet = ?, visitor = ?, email = ?, entered = NULL WHERE id = ?`
			)
			.run(now, now, sent.packet, starting.visitor.name.trim(), email, one.id);
		house.db.prepare('UPDATE intakes SET handed = handed + 1 WHERE id = ?').run(one.intake);
		return handedIn(house, { ...one, packet: sent.packet }, sent);
	});
}

/** Whether the address is proved where it must be. */
function unproved(one: Case, email: string): Refusal | null {
	if (!one.setting.proof) return null;
	return one.proved && one.email.toLowerCase() === email.toLowerCase()
		? null
		: refuse('address-unproved', 'Confirm your e-mail address first.', 'email');
}

/** Who has begun goes on when an intake is closed; but no more cases come in than it takes. */
function full(house: House, one: Case, handed: number): Refusal | null {
	const { zone } = organisation(house.db);
	const no = closedNow(one.setting, 'open', handed, house.now().toISOString(), zone);
	return no?.at === 'most' ? no : null;
}

/** Answers that a person finds filled in, to check and change. */
export function keepFor(house: House, packet: SentPacket, person: string, answers: Answers): void {
	if (Object.keys(answers).length === 0) return;
	house.db
		.prepare(
			'INSERT OR REPLACE INTO saved_answers (packet, person, answers, saved_at, told, told_at) VALUES (?, ?, ?, ?, ?, ?)'
		)
		.run(
			packet.packet,
			person,
			JSON.stringify(answers),
			house.now().toISOString(),
			JSON.stringify(answers),
			house.now().toISOString()
		);
}

function handedIn(house: House, one: Case, packet: SentPacket): HandedIn {
	const { starter } = one.setting;
	const first = packet.plan.people.find(({ id }) => id === starter);
	const turn = packet.status === 'out' && packet.stop === stopOf(packet.plan, starter);
	return {
		packet: packet.packet,
		reference: packet.reference,
		// nobody of the office gets the way to sign for somebody
		to:
			packet.begun?.prepares === false && turn && !one.byOffice
				? `/s/${newLink(house.db, packet.packet, starter, house.now())}`
				: null,
		name: first?.name ?? ''
	};
}

/** What the rules of a packet's intake have against the answers with which its first person wants to finish. */
export function caseFault(house: House, packet: SentPacket, person: string, given: Answers): Refusal | null {
	if (!packet.begun) return null;
	const row = house.db
		.prepare<[string], { intake: string; version: number }>('SELECT intake, version FROM cases WHERE packet = ?')
		.get(packet.packet);
	const setting = row && versionOf(house, row.intake, row.version);
	if (!setting || setting.starter !== person) return null;
	// its own questions are fields of the packet's plan by now
	return laterFault(packet.plan, setting, given, isoDay(packet.zone, house.now().toISOString()));
}
