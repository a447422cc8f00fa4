import { isolated } from '../core/clean-text';
import {
	SENDER,
	type Begun,
	type DoubtFound,
	type FollowedWhat,
	type HowJudged,
	type PacketEvent,
	type PaperTaken,
	type PlanChange,
	type Plan,
	type Recorded
} from '../core/packet';
import type { CheckFound, Verdict } from '../core/identity';
import { doneWord } from '../core/route';

/** How somebody was known, by the code of what was chosen; what was written instead stands as it is. */
const KNOWN_BY: Record<string, string> = {
	known: 'known personally.',
	document: 'showed an identity document.'
};

/**
 * An event in plain words, for the record beside a packet and for the evidence sheet.
 * @param short without digests, where those are shown apart
 */
export function inWords(event: Recorded, plan: Plan, short = false): string {
	const person = (id: string) =>
		id === SENDER ? 'the sender' : isolated(plan.people.find((p) => p.id === id)?.name ?? 'somebody');
	const said =
		short && event.type === 'ConsentGiven'
			? `${person(event.person)} agreed to sign electronically.`
			: sentence(event, plan, person);
	if (event.by.kind !== 'office') return said;
	const { name, key } = event.by;
	if (key !== undefined) return `${said} By key “${isolated(key)}” of ${isolated(name)}.`;
	return event.type !== 'PacketSent' ? `${said} By ${isolated(name)}.` : said;
}

/** What of an event is for experts: digests, addresses, devices, each with its name. */
export function technicalOf(event: Recorded): [name: string, value: string][] {
	const facts: [string, string | undefined][] = [
		['Address', 'from' in event ? event.from?.address : undefined],
		['Device', 'from' in event ? event.from?.device : undefined],
		['Text agreed to', event.type === 'ConsentGiven' ? event.text.replace(' ', ', SHA-256 ') : undefined],
		[
			'Pages, SHA-256',
			event.type === 'PaperFetched'
				? event.digest
				: event.type === 'ReturnHandedIn'
					? event.pictures.join(', ')
					: undefined
		],
		['Shown, SHA-256', event.type === 'PersonFinished' ? event.shown : undefined],
		['Plan, SHA-256', event.type === 'PacketSent' || event.type === 'PlanCorrected' ? event.plan : undefined],
		['Copy, SHA-256', event.type === 'CopySealed' || event.type === 'EvidenceSealed' ? event.digest : undefined],
		['Copies, SHA-256', event.type === 'CopiesStamped' ? event.copies.map(({ now }) => now).join(', ') : undefined]
	];
	return facts.filter((fact): fact is [string, string] => fact[1] !== undefined && fact[1] !== '');
}

/** Whether documents were taken in unchanged, or which pages were accepted as they are, by whom. */
function takenInWords(taken: PaperTaken[], plan: Plan): string {
	const name = (id: string) => isolated(plan.papers.find((paper) => paper.id === id)?.name ?? 'a document');
	return taken
		.map(({ paper, pages }) =>
			pages.length === 0
				? ` “${name(paper)}” was taken in unchanged.`
				: ` Of “${name(paper)}” ${pages.map(({ page, by }) => `page ${page + 1} looks different from its file and was accepted as it is by ${by}`).join('; ')}.`
		)
		.join('');
}

/** Who began a case, for whom, and what they entered. */
function begunInWords({ heading, by, prepares, proved, entered }: Begun, reference: string, plan: Plan): string {
	const labels = entered.map((id) => `“${isolated(plan.fields.find((f) => f.id === id)?.label ?? 'a field')}”`);
	const who = `${isolated(by.name)}, ${isolated(by.email)}${proved ? ' (address proved by a code)' : ''},`;
	const what = prepares ? `prepared it as ${reference} for somebody else` : `began it as ${reference}`;
	return `${who} ${what}, through the intake “${isolated(heading)}”${labels.length > 0 ? `, and entered ${[...new Set(labels)].join(', ')}` : ''}.`;
}

const FOLLOWED: Record<FollowedWhat, string> = {
	letter: 'What follows: a letter was sent to',
	template: 'What follows: another packet was made',
	row: 'What follows: a row was added to the sheet',
	file: 'What follows: it was put into the folder',
	'not done': 'What was to follow could not be done'
};

const VERDICT: Record<Verdict, string> = {
	right: 'it holds',
	wrong: 'it does not hold',
	unsure: 'it can’t be judged for sure',
	again: 'it was not read surely, and counts as no try'
};

/** The checks that it lay at. */
function decisive(verdict: Verdict, checks: readonly CheckFound[]): string {
	const lay = verdict === 'right' ? [] : checks.filter((one) => one.outcome === verdict).map((one) => one.check);
	return lay.length > 0 ? ` (${lay.join(', ')})` : '';
}

const JUDGED: Record<HowJudged, string> = {
	'let through': 'to be let through',
	'another try': 'to be let try again',
	refuse: 'to be refused'
};

const pagesSaid = (pages: number): string => (pages === 1 ? 'one page' : `${pages} pages`);

/** What is in doubt, each once with its pages. */
function doubtsSaid(doubts: readonly DoubtFound[]): string {
	const names = [...new Set(doubts.map((doubt) => doubt.what))];
	return names
		.map((what) => {
			const pages = doubts.flatMap((doubt) => (doubt.what === what && doubt.page !== null ? [doubt.page + 1] : []));
			return pages.length > 0 ? `${what} (page ${[...new Set(pages)].join(', ')})` : what;
		})
		.join('; ');
}

function sentence(event: PacketEvent, plan: Plan, person: (id: string) => string): string {
	switch (event.type) {
		case 'PacketSent':
			return event.begun
				? begunInWords(event.begun, event.reference, plan)
				: `${isolated(event.sender.name)} sent it as ${event.reference}.${takenInWords(event.taken ?? [], plan)}`;
		case 'FollowedUp':
			return `${FOLLOWED[event.what]}: ${isolated(event.about)}`;
		case 'StopOpened':
			return `Stop ${event.stop + 1} opened for ${event.people.map(person).join(' and ')}.`;
		case 'StopSkipped':
			return `Stop ${event.stop + 1} was left out by its rule: ${event.people.map(person).join(' and ')}.`;
		case 'PersonSpared':
			return `${person(event.person)} is no longer needed, since ${person(event.doneBy)} of their group has done it.`;
		case 'MessageSent':
			return `${MESSAGE[event.purpose]} sent to ${person(event.person)}, ${event.to}${event.channel === 'text' ? ', by text message' : ''}.`;
		case 'MessageRefused':
			return `A ${event.channel === 'text' ? 'text message' : 'message'} to ${person(event.person)}, ${event.to}, came back: ${isolated(event.why)}`;
		case 'LinkTaken':
			return `The link of ${person(event.person)} was taken, to be handed on.`;
		case 'CopyLookedAt':
			return `${person(event.person)} looked at their copy.`;
		case 'PagesSeen':
			return `${person(event.person)} had pages in view: ${event.pages.map((one) => `${isolated(plan.papers.find((p) => p.id === one.paper)?.name ?? 'a document')}, page ${one.page + 1}, ${one.seconds} s`).join('; ')}.`;
		case 'AnswersKept':
			return `${person(event.person)} changed ${event.fields.length === 1 ? 'an answer' : `${event.fields.length} answers`}: ${event.fields.map((id) => `“${plan.fields.find((f) => f.id === id)?.label ?? 'a field'}”`).join(', ')}.`;
		case 'CodeWrong':
			return `${person(event.person)} entered a wrong code.`;
		case 'CodeRight':
			return `${person(event.person)} entered the right code, ${event.way === 'code' ? 'told by the sender' : event.way === 'mail' ? 'sent by mail' : 'sent by text message'}.`;
		case 'PersonHeld':
			return event.why
				? `${person(event.person)} ${event.why === 'failed' ? 'failed to show who they are as often as is allowed' : 'showed who they are, and it could not be judged for sure'}; the packet is held.`
				: `${person(event.person)} has entered as many wrong codes as are allowed; the packet is held.`;
		case 'IdentityHandedIn':
			return `${person(event.person)} handed in pictures of a ${event.kind}: ${event.pictures.map((one) => `${one.side}, SHA-256 ${one.digest}`).join('; ')}.`;
		case 'IdentityJudged':
			return `The ID desk looked at what ${person(event.person)} handed in: ${VERDICT[event.verdict]}${decisive(event.verdict, event.checks)}.`;
		case 'QuestionsAnswered':
			return `${person(event.person)} answered what the office asked: ${event.right} of ${event.of} right, which is ${event.enough ? 'enough' : 'not enough'}.`;
		case 'IdentityKnown':
			return `${person(event.person)} showed who they are ${event.shownAt ? `on ${event.shownAt.slice(0, 10)}` : 'earlier'}, for another packet, and was not asked again.`;
		case 'PicturesSeen':
			return `The pictures that ${person(event.person)} handed in were ${event.taken ? 'downloaded' : 'looked at'}.`;
		case 'JudgedByOne':
			return `One of the two who must agree about ${person(event.person)} judged: ${JUDGED[event.how]}${event.note ? `: ${isolated(event.note)}` : ''}.`;
		case 'HoldReleased':
			return `${person(event.person)} was ${event.how === 'let through' ? (plan.people.find((p) => p.id === event.person)?.identity ? 'let through' : 'let through without a code') : 'let try again'}${event.word ? `, with the word “${isolated(event.word)}”` : ''}${event.note ? `: ${isolated(event.note)}` : ''}.`;
		case 'PersonRefused':
			return `The office did not take ${person(event.person)} for who they should be: ${isolated(event.note)}${event.others ? ' Others of their group can still do it.' : ''}`;
		case 'PicturesDeleted':
			return `The pictures of ${event.tries.length === 1 ? 'one try' : `${event.tries.length} tries`} to show who somebody is were deleted; their digests and what was found stay in this record.`;
		case 'DeviceHanded':
			return `${person(event.person)} handed their device to ${person(event.guest)}.`;
		case 'GuestConfirmed':
			return `${person(event.person)} says that ${person(event.guest)} did it in front of them: ${KNOWN_BY[event.how] ?? isolated(event.how)}`;
		case 'PaperOpened':
			return `${person(event.person)} opened it.`;
		case 'ConsentGiven':
			return `${person(event.person)} agreed to sign electronically, by the text ${event.text.replace(' ', ', SHA-256 ')}.`;
		case 'PaperFetched':
			return event.from
				? `${person(event.person)} fetched ${pagesSaid(event.pages)} to sign on paper.`
				: `${pagesSaid(event.pages)} were fetched for ${person(event.person)}, to be signed on paper.`;
		case 'ReturnHandedIn':
			return event.post
				? `What came back on paper from ${person(event.person)} was taken in: ${event.pictures.length} pictures.`
				: `${person(event.person)} handed in what they signed on paper: ${event.pictures.length} pictures.`;
		case 'ReturnChecked':
			return event.doubts.length === 0
				? `The paper of ${person(event.person)} is what went out, and signed at every place.`
				: `The paper of ${person(event.person)} was held against what went out; to be looked at: ${doubtsSaid(event.doubts)}.`;
		case 'ReturnAccepted':
			return `The paper of ${person(event.person)} was taken for the document, and stands in it from now on.${event.note ? ` Note: ${isolated(event.note)}` : ''}`;
		case 'ReturnAskedAgain':
			return `${person(event.person)} was asked for page ${event.pages.map((page) => page + 1).join(', ')} on paper again: ${doubtsSaid(event.doubts)}.${event.word ? ` “${isolated(event.word)}”` : ''}`;
		case 'ReturnRefused':
			return `The paper of ${person(event.person)} was refused: “${isolated(event.word)}”`;
		case 'SessionAppointed':
			return `The session before ${person(event.person)} was set for ${event.starts.slice(0, 16).replace('T', ', ')} UTC, ${event.minutes} minutes${event.was ? ` (it was ${event.was.slice(0, 16).replace('T', ', ')} UTC)` : ''}.`;
		case 'SessionBegun':
			return `${isolated(event.commission.name)}, notary, ${isolated(event.commission.jurisdiction)}, commission ${isolated(event.commission.number)} until ${event.commission.until}, began the session.${event.fee ? ` Fee: ${isolated(event.fee)}.` : ''}`;
		case 'SessionPaused':
			return `The session goes on another day: ${isolated(event.why)}`;
		case 'RoomEntered':
			return `${person(event.person)} came into the room.`;
		case 'RoomLeft':
			return event.how === 'lost'
				? `Nothing was heard of ${person(event.person)} in the room any more.`
				: `${person(event.person)} left the room.`;
		case 'PersonConfirmed':
			return `${person(event.person)} confirmed that ${person(event.who)} is who they should be: ${isolated(event.how)}.`;
		case 'OathTaken':
			return `${person(event.person)} took the oath: “${isolated(event.words)}”`;
		case 'TurnGiven':
			return `${person(event.person)} asked ${person(event.who)} to sign, and looked on.`;
		case 'FieldsPlaced':
			return `${person(event.person)} placed ${event.fields.map((field) => `“${isolated(field.label)}” for ${person(field.person ?? '')} (page ${field.page + 1})`).join(', ')}.`;
		case 'PartOpenedAgain':
			return `${person(event.person)} had ${person(event.who)} sign once more: ${isolated(event.why)}`;
		case 'ActDrawn':
			return `${person(event.person)} drew up the act${event.added ? ', on a page of its own' : ''}: “${isolated(event.text)}”`;
		case 'ResultApproved':
			return `${person(event.person)} approved the result.`;
		case 'ResultDoubted':
			return `${person(event.person)} says that something is wrong with it: ${isolated(event.why)}`;
		case 'PersonFinished': {
			const duty = plan.people.find((p) => p.id === event.person)?.duty ?? 'signs';
			return `${person(event.person)} ${doneWord(duty)}${event.ink ? ', on paper' : ''}${event.before ? `, before ${person(event.before)}` : ''}.`;
		}
		case 'PersonNamed':
			return `${isolated(event.name)}, ${event.email}, was named as ${plan.people.find((p) => p.id === event.person)?.role || 'the next person'}.`;
		case 'PersonDeclined':
			return `${person(event.person)} declined: ${isolated(event.reason)}${event.others ? ' Others of their group can still do it.' : ''}`;
		case 'PartHandedOver':
			return `${isolated(event.was.name)}, ${event.was.email}, handed their part over to ${isolated(event.name)}, ${event.email}: ${isolated(event.why)}`;
		case 'WordingAsked':
			return `${person(event.person)} asked for another wording of “${isolated(event.words)}”${event.instead ? `: “${isolated(event.instead)}”` : ''}${event.why ? ` (${isolated(event.why)})` : ''}.`;
		case 'WordingAnswered':
			return `The wish for another wording was answered: ${isolated(event.say)}`;
		case 'FolderChanged':
			return event.now === ''
				? `It was taken out of the folder “${isolated(event.was)}”.`
				: `It was put into the folder “${isolated(event.now)}”.`;
		case 'TypeChanged':
			return event.now === ''
				? `It is of no type any more; it was “${isolated(event.was)}”.`
				: `Its type is “${isolated(event.now)}”.`;
		case 'PacketAmended':
			return `It was amended by ${event.reference}, which holds now.`;
		case 'RetentionSet':
			return event.until === null
				? `It is kept for as long as the rules say: ${isolated(event.why)}`
				: `It is kept until ${event.until}, whatever the rules say: ${isolated(event.why)}`;
		case 'PacketPutAway':
			return event.to === 'archive' ? 'It was put into the archive.' : 'It was put into the bin.';
		case 'PacketRestored':
			return event.was === 'archive' ? 'It was taken back from the archive.' : 'It was taken back from the bin.';
		case 'DeadlineMoved':
			return `The deadline was moved from ${event.was?.slice(0, 10) ?? 'none'} to ${event.now?.slice(0, 10) ?? 'none'}.`;
		case 'CorrectionBegun':
			return 'It was shut to signers, to be put right.';
		case 'CorrectionGoesOn':
			return 'It went on being put right.';
		case 'CorrectionLeft':
			return event.why === 'left'
				? 'It was opened to signers again, unchanged.'
				: 'Nothing was changed for a while, so it was opened to signers again, unchanged.';
		case 'PlanCorrected':
			return `It was put right and opened to signers again. ${correctionInWords(event.changes).join(' ')}`.trim();
		case 'CorrectionShown':
			return `${person(event.person)} was shown what had been put right since they opened it.`;
		case 'Nudged':
			return `${person(event.person)} was nudged.`;
		case 'Reminded':
			return `It was time to remind ${person(event.person)}.`;
		case 'DeadlineNear':
			return `The deadline is near; it is with ${event.people.map(person).join(' and ')}.`;
		case 'TermEnding':
			return `The agreement's term ends on ${event.ends}.`;
		case 'AddressCorrected':
			return `The ${event.channel === 'text' ? 'telephone number' : 'address'} of ${person(event.person)} was put right, from ${event.was} to ${event.now}.`;
		case 'PacketCompleted':
			return 'Everyone has done their part; the packet is complete.';
		case 'PacketWithdrawn':
			return `It was withdrawn: ${isolated(event.reason)}`;
		case 'PacketExpired':
			return 'Its time ran out.';
		case 'CopySealed':
			return `“${isolated(plan.papers.find((p) => p.id === event.paper)?.name ?? 'A document')}” was sealed.`;
		case 'EvidenceSealed':
			return 'The evidence sheet was made and sealed.';
		case 'CopiesStamped':
			return `The copies got another time-stamp, which proves them until ${event.until.slice(0, 10)}.`;
		case 'CopyFetched':
			return `${event.person === null ? 'The office' : person(event.person)} downloaded ${event.what}.`;
	}
}

/** What a correction changed, a sentence each, for the record and for whoever is about to send it. */
export function correctionInWords(changes: PlanChange[]): string[] {
	return changes.map((change) => {
		switch (change.what) {
			case 'person added':
				return `${isolated(change.name)} was added.`;
			case 'person removed':
				return `${isolated(change.name)} was taken off.`;
			case 'person changed':
				return `Changed of ${isolated(change.name)}: ${change.parts.join(', ')}.`;
			case 'fields added':
			case 'fields changed':
			case 'fields removed':
				return `${FIELDS[change.what]} ${isolated(change.name)}: ${change.labels.map((label) => `“${isolated(label)}”`).join(', ')}.`;
			case 'documents':
				return `The documents are now ${change.names.map((name) => `“${name}”`).join(', ')}.`;
			case 'title':
				return `The title was “${change.was}” and is now “${change.now}”.`;
			case 'route':
				return 'The order, a group or a rule of the route was changed.';
			case 'letters':
				return 'The letter to all was changed.';
			case 'sending':
				return 'The days, reminders or other settings were changed.';
			case 'answers':
				return 'What the sender filled in was changed.';
		}
	});
}

const FIELDS = {
	'fields added': 'Fields added for',
	'fields changed': 'Fields changed of',
	'fields removed': 'Fields taken away from'
} as const;

const MESSAGE = {
	'your turn': 'The message was',
	nudge: 'A nudge was',
	reminder: 'A reminder was',
	ending: 'Word that the end is near was',
	code: 'A code was',
	'state so far': 'The state so far was',
	'let go': 'Word that they are no longer part of it was',
	spared: 'Word that they are no longer needed was',
	'handed over': 'Word of the hand-over was',
	wording: 'The wish for another wording was',
	'wording answered': 'The answer about the wording was',
	held: 'Word of the hold was',
	'paper back': 'Word that something came back on paper was',
	'paper again': 'Word that pages are wanted again was',
	'paper refused': 'Word that the paper was refused was',
	appointment: 'The appointment was',
	'being looked at': 'Word that it is being looked at was',
	'term ending': 'Word of the term’s end was',
	copies: 'The sealed copies were',
	declined: 'Word of the declining was',
	withdrawn: 'Word of the withdrawal was',
	expired: 'Word that time ran out was'
} as const;
