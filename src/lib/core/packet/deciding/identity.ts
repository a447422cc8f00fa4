import { waysLeft, type IdentityAsked, type IdentityWay } from '../../identity/asked';
import { refuse, refuseWith } from '../../refusal';
import type { Command } from '../commands';
import type { PacketEvent } from '../events';
import { personIn, type PlanPerson } from '../plan';
import { addressOf, NOTHING_SHOWN, othersOfGroup, type OpenPacket, type Proof, type SentPacket } from '../state';
import { onTurn, whileOpen, type Decided, type Out } from './turn';

type Of<Do extends Command['do']> = Extract<Command, { do: Do }>;

const proofOf = (packet: SentPacket, person: string): Proof => packet.proofs[person] ?? NOTHING_SHOWN;

/** Whether that person must enter a code before anything is shown to them. */
export function mustProve(packet: SentPacket, person: PlanPerson): boolean {
	return person.check !== undefined && !proofOf(packet, person.id).spared;
}

/** What that person still has to show of themselves. */
export function stillToShow(packet: SentPacket, person: PlanPerson): IdentityWay[] {
	const proof = proofOf(packet, person.id);
	return person.identity && !proof.spared ? waysLeft(person.identity, proof.shown) : [];
}

/** How many tries of one way are left. */
export const triesLeft = (packet: SentPacket, person: PlanPerson, way: IdentityWay): number =>
	(person.identity?.tries ?? 0) - proofOf(packet, person.id).failed[way];

/** Pictures that nothing could be judged of, in a row, after which somebody looks: no try is counted for one. */
const MOST_UNREAD = 3;

/** Seconds to wait after so many wrong codes in a row: 2, 4, 8 … a minute at most. */
export function pauseAfter(wrong: number): number {
	return wrong === 0 ? 0 : Math.min(60, 2 ** wrong);
}

/**
 * A code has been entered; whoever keeps the hashes says whether it is right. Too early after a wrong one it doesn't
 * count at all; the last wrong one that is allowed holds the packet.
 */
export function enterCode(state: SentPacket, command: Of<'enterCode'>, now: string): Decided {
	return onTurn(state, command.person, now, (out, _standing, person) => {
		const { check } = person;
		if (!check) return refuse('no-check', 'No code is asked of you.');
		const { wrong, lastWrong } = proofOf(out, person.id);
		const wait = lastWrong === null ? 0 : pauseAfter(wrong) - (Date.parse(now) - Date.parse(lastWrong)) / 1000;
		if (wait > 0)
			return refuseWith('code-too-soon', `Wait ${Math.ceil(wait)} seconds, then try again. That one did not count.`, {
				seconds: Math.ceil(wait)
			});
		if (command.right) return [{ type: 'CodeRight', person: person.id, way: check.by, from: command.from }];
		return [
			{ type: 'CodeWrong', person: person.id, from: command.from },
			...(wrong + 1 >= command.most ? [{ type: 'PersonHeld' as const, person: person.id }] : [])
		];
	});
}

/** Runs `then` where that person still has to show something of this way, and the desk is not looking already. */
function whileShowing(
	state: SentPacket,
	id: string,
	way: IdentityWay,
	now: string,
	then: (out: Out, asked: IdentityAsked, proof: Proof) => Decided
): Decided {
	return onTurn(state, id, now, (out, _standing, person) => {
		if (!person.identity || !stillToShow(out, person).includes(way))
			return refuse('nothing-to-show', 'Nothing of that kind is asked of you now.');
		const proof = proofOf(out, id);
		return proof.waiting !== null
			? refuse('being-looked-at', 'Your pictures are being looked at. Wait a moment.')
			: then(out, person.identity, proof);
	});
}

export function handInIdentity(state: SentPacket, command: Of<'handInIdentity'>, now: string): Decided {
	return whileShowing(state, command.person, 'document', now, (_out, asked) => {
		if (!asked.document!.kinds.includes(command.kind))
			return refuse('kind-not-taken', 'That kind of document is not taken here.', 'kind');
		const { do: _do, ...handed } = command;
		return [{ type: 'IdentityHandedIn', ...handed }];
	});
}

/** The desk has looked. What it can't judge waits for the office, as do too many that failed, or that nothing could be read of. */
export function judgeIdentity(state: SentPacket, command: Of<'judgeIdentity'>): Decided {
	return whileOpen(state, (open) => {
		const person = personIn(open.plan, command.person);
		const proof = proofOf(open, command.person);
		if (!person?.identity || proof.waiting !== command.try) return [];
		const { do: _do, ...judged } = command;
		const why = holdsFor(command.verdict, person.identity, proof);
		return [
			{ type: 'IdentityJudged', ...judged },
			...(why && open.status === 'out' ? [{ type: 'PersonHeld' as const, person: person.id, why }] : [])
		];
	});
}

function holdsFor(
	verdict: Of<'judgeIdentity'>['verdict'],
	{ tries }: IdentityAsked,
	proof: Proof
): 'failed' | 'unsure' | null {
	if (verdict === 'unsure' || (verdict === 'again' && proof.unread + 1 >= MOST_UNREAD)) return 'unsure';
	return verdict === 'wrong' && proof.failed.document + 1 >= tries ? 'failed' : null;
}

export function answerQuestions(state: SentPacket, command: Of<'answerQuestions'>, now: string): Decided {
	return whileShowing(state, command.person, 'questions', now, (_out, asked, proof) => {
		const { do: _do, ...answered } = command;
		const last = !command.enough && proof.failed.questions + 1 >= asked.tries;
		return [
			{ type: 'QuestionsAnswered', ...answered },
			...(last ? [{ type: 'PersonHeld' as const, person: command.person, why: 'failed' as const }] : [])
		];
	});
}

/** They showed it lately, for another packet of this office. */
export function knowIdentity(state: SentPacket, command: Of<'knowIdentity'>, now: string): Decided {
	return whileShowing(state, command.person, command.way, now, () => {
		const { do: _do, ...known } = command;
		return [{ type: 'IdentityKnown', ...known }];
	});
}

/**
 * The office judges somebody who is held: another try, let through, or refused. Nobody judges who takes part in the packet; where two
 * must agree, the first one's word stands in the record and changes nothing yet.
 */
export function release(state: SentPacket, command: Of<'release'>): Decided {
	return whileOpen(state, (open) => {
		const { person: id, how, judge } = command;
		const note = command.note.trim();
		const person = personIn(open.plan, id);
		if (open.status !== 'held' || open.person !== id || !person)
			return refuse('not-held', `${person?.name ?? 'Nobody'} is not held here.`);
		if (person.identity && takesPart(open, judge.email)) return TAKES_PART;
		if (how === 'refuse' && note === '')
			return refuse('note-missing', 'Say why, for the record. It is not told to anybody else.', 'note');
		const { agreed } = proofOf(open, id);
		if (agreed.some((one) => one.account === judge.account && one.how === how)) return [];
		const others = new Set(agreed.filter((one) => one.how === how).map((one) => one.account)).size;
		if (others + 1 < command.judges) return [{ type: 'JudgedByOne', person: id, how, note }];
		return [judgedFinally(open, command, note)];
	});
}

function judgedFinally(open: OpenPacket, { person, how, word }: Of<'release'>, note: string): PacketEvent {
	if (how !== 'refuse')
		return {
			type: 'HoldReleased',
			person,
			how,
			note,
			...(word?.trim() && how === 'another try' && { word: word.trim() })
		};
	return { type: 'PersonRefused', person, note, ...(othersOfGroup(open, person) && { others: true as const }) };
}

/** Nobody judges who is part of it. */
export const TAKES_PART = refuse(
	'takes-part',
	'You take part in this yourself. Somebody else of the office has to judge.'
);

/** Whether an address is one of the packet's people, also of those whose part it was before. */
export function takesPart(packet: SentPacket, email: string): boolean {
	const own = email.trim().toLowerCase();
	return [...packet.plan.people.map(({ id }) => addressOf(packet, id)), ...packet.former.map((one) => one.email)].some(
		(address) => address.toLowerCase() === own
	);
}

/** A look at the pictures is in the record each time; nothing else changes. */
export function seePictures({ person, try: which, taken }: Of<'seePictures'>): Decided {
	return [{ type: 'PicturesSeen', person, try: which, taken }];
}

export function deletePictures({ tries }: Of<'deletePictures'>): Decided {
	return tries.length === 0 ? [] : [{ type: 'PicturesDeleted', tries }];
}
