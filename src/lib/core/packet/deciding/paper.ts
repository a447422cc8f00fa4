import { finishAnswers, kindOf, rulesOf, usesOf, questionOfKey, live } from '../../field';
import { isoDay } from '../../calendar';
import { isRefusal, refuse, type Refusal } from '../../refusal';
import { beforeNotary, guestsOf, toBeNamedBy } from '../../route';
import type { Command } from '../commands';
import { localeOf, personIn, type Field, type Plan, type PlanPerson } from '../plan';
import { addressOf, isShut, stillAt, type Ink, type OpenPacket, type SentPacket } from '../state';
import { whatFollows } from './finishing';
import { TAKES_PART, takesPart } from './identity';
import { onTurn, whileOpen, type Decided, type Out } from './turn';

/** Signing on paper: what went out, what came back, and what the office makes of it. */

type Of<Do extends Command['do']> = Extract<Command, { do: Do }>;

export const NO_PAPER = refuse('no-paper', 'This can’t be signed on paper. Sign it here, or ask the sender.');

/** Why somebody can't do their part on paper; null where they can. */
export function noPaper(packet: OpenPacket, person: PlanPerson): Refusal | null {
	if (person.ink !== true) return NO_PAPER;
	if (toBeNamedBy(packet.plan, person.id).length > 0)
		return refuse('paper-names', 'You name who comes next, which can’t be done on paper. Do it here.');
	if (person.duty === 'hosts' || guestsOf(packet.plan, person.id).length > 0)
		return refuse('paper-hosts', 'Others sign in front of you, which can’t be done on paper. Do it here.');
	if (person.duty === 'notarises' || beforeNotary(packet.plan).includes(person))
		return refuse('paper-notary', 'This is signed before a notary, which can’t be done on paper. Do it here.');
	const other = stillAt(packet).find((id) => id !== person.id && isUnderWay(packet.inks[id]));
	if (other !== undefined)
		return refuse(
			'paper-out',
			'Somebody else has this on paper at the moment. Sign it here, or wait until theirs is back.'
		);
	return null;
}

const isUnderWay = (ink: Ink | undefined): boolean =>
	ink !== undefined && ['fetched', 'looking', 'doubts', 'sure', 'again'].includes(ink.is);

/** Runs `then` where it is that person's turn, and they have it on paper under this id. */
function withOut(
	state: SentPacket,
	{ person: id, out }: { person: string; out: string },
	is: Ink['is'][],
	then: (open: Out, ink: Ink, person: PlanPerson) => Decided
): Decided {
	return whileOpen(state, (open) => {
		const person = personIn(open.plan, id);
		const ink = open.inks[id];
		if (open.status === 'held')
			return refuse('held', 'The sender is looking at something here first. What came back is kept.');
		if (!person || !stillAt(open).includes(id))
			return refuse('not-their-turn', 'It is not their turn any more. What came back is kept as it is.');
		if (!ink || ink.out !== out || !is.includes(ink.is))
			return refuse('nothing-out', 'Nothing of theirs waits here: it was settled already, or fetched anew.');
		return then(open, ink, person);
	});
}

export function fetchPaper(state: SentPacket, command: Of<'fetchPaper'>, now: string): Decided {
	const { do: _do, ...fetched } = command;
	// posted by the office, it may be before they have looked at it
	const then = (open: OpenPacket, person: PlanPerson): Decided => {
		const no = noPaper(open, person);
		if (no) return no;
		const ink = open.inks[person.id];
		if (ink && ['looking', 'doubts', 'sure'].includes(ink.is))
			return refuse('being-looked-at', 'What came back is being looked at. Wait until that is done.');
		return [{ type: 'PaperFetched', ...fetched }];
	};
	if (command.from)
		return onTurn(state, command.person, now, (out, standing, person) =>
			standing.is === 'opened' ? then(out, person) : refuse('not-opened', 'Open the document first.')
		);
	return whileOpen(state, (open) => {
		const person = personIn(open.plan, command.person);
		return person && stillAt(open).includes(person.id)
			? then(open, person)
			: refuse('not-their-turn', 'It is not their turn.');
	});
}

export function handInReturn(state: SentPacket, command: Of<'handInReturn'>, now: string): Decided {
	const { do: _do, ...handed } = command;
	const then = (): Decided =>
		withOut(state, command, ['fetched', 'again', 'doubts', 'sure'], () =>
			command.pictures.length === 0
				? refuse('nothing-back', 'There are no pages here yet. Add them first.')
				: [{ type: 'ReturnHandedIn', ...handed }]
		);
	return command.post ? then() : onTurn(state, command.person, now, then);
}

export function checkReturn(state: SentPacket, command: Of<'checkReturn'>): Decided {
	const { do: _do, ...checked } = command;
	const found = withOut(state, command, ['looking'], () => [{ type: 'ReturnChecked', ...checked }]);
	// meanwhile it has ended, or was fetched anew: nobody waits for it any more
	return isRefusal(found) ? [] : found;
}

/** The scanned pages are taken for the document, and their part is done. */
export function acceptReturn(state: SentPacket, command: Of<'acceptReturn'>, now: string): Decided {
	return withOut(state, command, command.judge ? ['doubts', 'sure'] : ['sure'], (out, ink, person) => {
		if (command.judge && takesPart(out, command.judge.email)) return TAKES_PART;
		if (isShut(out, now))
			return refuse('being-corrected', 'This is being put right. Take what came back once that is done; it is kept.');
		const { person: id, papers, plan, written, note, from } = command;
		const missing = ink.doubts.find((doubt) => doubt.what === 'page missing');
		if (missing)
			return refuse('page-missing', `Page ${(missing.page ?? 0) + 1} is missing. Ask for it; the others are kept.`);
		if (papers.some((one) => out.plan.papers.find(({ id: paper }) => paper === one.paper)?.digest !== one.was))
			return refuse('paper-changed', 'The document is another one by now. Refuse this, and have it fetched anew.');
		const inHand: Plan = { ...out.plan, fields: out.plan.fields.map((field) => onPaper(field, id)) };
		const answers = finishAnswers(
			inHand,
			id,
			command.answers,
			{ person: { ...person, email: addressOf(out, id) }, now, zone: out.zone, locale: localeOf(out.plan) },
			out.answers,
			Object.keys(out.people).filter((one) => ['done', 'skipped'].includes(out.people[one]!.is))
		);
		if (isRefusal(answers)) return answers;
		const all = { ...out.answers, ...answers };
		const unsaid = neededByRules(out, id, now).find((field) => all[field.id] === undefined);
		if (unsaid)
			return refuse(
				'confirm-missing',
				`The route hangs on “${unsaid.label}”. Read it, and confirm what it says.`,
				unsaid.id
			);
		return [
			{ type: 'ReturnAccepted', person: id, out: command.out, plan, papers, written, note: note.trim() },
			{ type: 'PersonFinished', person: id, answers, shown: ink.digest, from, ink: command.out },
			...whatFollows(out, id, all, now)
		];
	});
}

/** What somebody writes by hand is asked of nobody any more; the day of signing stands there in their own hand. */
const onPaper = (field: Field, person: string): Field => {
	if (field.person !== person) return field;
	const { requireWhen: _when, ...rest } = field;
	return kindOf(field.kind).filledBy === 'finishing' ? { ...rest, person: null } : { ...rest, required: false };
};

/** Fields of theirs that rules of the route or of others' fields ask for, and that are asked of them now. */
export function neededByRules(packet: OpenPacket, person: string, now: string): Field[] {
	const { plan } = packet;
	const there = live(plan, packet.answers, isoDay(packet.zone, now));
	const keys = [
		...plan.stops.flatMap(({ when }) => (when ? usesOf(when) : [])),
		...plan.fields.flatMap((field) => rulesOf(field).flatMap((rule) => usesOf(rule.source)))
	];
	return [...new Set(keys)].flatMap((key) => {
		const field = questionOfKey(plan.fields, key)?.find((one) => one.person === person);
		return field && there.required(field) && kindOf(field.kind).filledBy === 'person' ? [field] : [];
	});
}

export function askReturn(state: SentPacket, command: Of<'askReturn'>): Decided {
	return withOut(state, command, ['doubts', 'sure'], (out, { doubts }) => {
		if (takesPart(out, command.judge.email)) return TAKES_PART;
		if (command.pages.length === 0) return refuse('pages-missing', 'Say which pages are wanted again.', 'pages');
		const { person, pages, word } = command;
		return [{ type: 'ReturnAskedAgain', person, out: command.out, pages, doubts, word: word.trim() }];
	});
}

export function refuseReturn(state: SentPacket, command: Of<'refuseReturn'>): Decided {
	return withOut(state, command, ['doubts', 'sure'], (out) => {
		if (takesPart(out, command.judge.email)) return TAKES_PART;
		const word = command.word.trim();
		if (word === '') return refuse('word-missing', 'Say why, in words for them.', 'word');
		return [{ type: 'ReturnRefused', person: command.person, out: command.out, word }];
	});
}
