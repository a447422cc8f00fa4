import type { Answers } from '../field';
import type { CheckName, IdentityWay, Verdict } from '../identity';
import type { CommissionSaid } from '../notary';
import type { SeenPart } from './correcting/changes';
import type { Begun, DoubtFound, HowJudged } from './events';
import { personIn, type Plan, type PlanPerson } from './plan';

/** Where what has ended can lie besides the records: out of the way, or to go for good. */
export type PutAway = 'archive' | 'bin';

/** The ways a message goes. */
export type Channel = 'mail' | 'text';

/** How far a person is. A union, so that "signed but never notified" can't be written down. */
export type Standing =
	| { is: 'waiting' }
	| { is: 'notified'; since: string }
	| { is: 'unreachable'; since: string; why: string }
	| { is: 'opened'; since: string; at: string; consented: string | null }
	| { is: 'held'; since: string; at: string }
	| { is: 'done'; since: string; at: string; shown: string }
	| { is: 'declined'; since: string; at: string; reason: string }
	/** a rule, or another one of their group, left them out */
	| { is: 'skipped'; since: string; at: string; why: 'rule' | 'group' }
	/** got the copies, with nothing to do */
	| { is: 'copied'; since: string };

/** How far a person's proof of who they are has come. Codes themselves are never here. */
export interface Proof {
	/** wrong codes in a row */
	wrong: number;
	lastWrong: string | null;
	/** the sender has let them through without */
	spared: boolean;
	/** what they have shown of themselves */
	shown: IdentityWay[];
	/** tries of each way that failed in a row */
	failed: Record<IdentityWay, number>;
	/** tries in a row of which nothing could be judged: no try is counted for these, and they don't go on for ever */
	unread: number;
	/** the try that is being looked at by the desk */
	waiting: string | null;
	/** who of the office has judged, where two must agree */
	agreed: { account: string; name: string; how: HowJudged }[];
	/** what the desk found last, where it was not enough: the checks that it lay at */
	last: { verdict: Verdict; checks: CheckName[] } | null;
	/** what the office has said to them */
	word: string;
}

/** Of somebody who has shown nothing yet. */
export const NOTHING_SHOWN: Proof = {
	wrong: 0,
	lastWrong: null,
	spared: false,
	shown: [],
	failed: { document: 0, questions: 0 },
	unread: 0,
	waiting: null,
	agreed: [],
	last: null,
	word: ''
};

/** How far somebody has come who signs on paper. */
export interface Ink {
	/** what went out to them last */
	out: string;
	/** SHA-256 of what is on its pages */
	digest: string;
	/** 'looking': the machine holds it against what went out; 'doubts': somebody of the office looks */
	is: 'fetched' | 'looking' | 'doubts' | 'sure' | 'again' | 'refused' | 'accepted';
	since: string;
	doubts: DoubtFound[];
	/** the pages they are asked for again, and what the office has said to them */
	pages: number[];
	word: string;
}

/** How far a notary's session has come. */
export interface Session {
	appointment: { starts: string; minutes: number } | null;
	/** whether it is going on now */
	running: boolean;
	/** since it was first begun, by which commission, at what fee */
	begun: { at: string; commission: CommissionSaid; fee: string } | null;
	/** who is in the room */
	present: string[];
	/** how the notary knows each */
	confirmed: Record<string, string>;
	/** who has taken the oath */
	sworn: string[];
	/** who is asked to sign now */
	turn: string | null;
	/** what the notary has drawn up, to be approved by each */
	drawn: { at: string; text: string } | null;
	/** the page that was added for it */
	added: { paper: string; page: number } | null;
	approved: string[];
	/** what somebody says is wrong with it */
	doubts: Record<string, string>;
}

export const NO_SESSION: Session = {
	appointment: null,
	running: false,
	begun: null,
	present: [],
	confirmed: {},
	sworn: [],
	turn: null,
	drawn: null,
	added: null,
	approved: [],
	doubts: {}
};

/** Somebody's part passed on to somebody else, who has their place now. */
export interface HandOver {
	person: string;
	from: { name: string; email: string };
	to: { name: string; email: string };
	why: string;
	at: string;
}

/** A wish for another wording: whose, where, which words, what should stand there. */
export interface WordingWish {
	id: string;
	person: string;
	paper: string;
	page: number;
	words: string;
	instead: string;
	why: string;
}

/** Another wording that somebody has asked for. */
export interface WordingRequest extends WordingWish {
	at: string;
	/** what the sender has said to it */
	answer: string | null;
}

/** What holds for every packet that has been sent, whatever became of it. */
export interface Sent {
	packet: string;
	reference: string;
	plan: Plan;
	planDigest: string;
	sender: { name: string; email: string; organisation: string };
	sentAt: string;
	deadline: string | null;
	zone: string;
	/** the office's folder it lies in; '' where in none */
	folder: string;
	/** what the office sorts by; '' where it has none */
	type: string;
	/** null: where it stands by itself, among what is out or has ended */
	put: { where: PutAway; at: string } | null;
	/** the packet that has changed it last; null: it holds as it is */
	amended: { by: string; reference: string; at: string } | null;
	/** the last day on which it is kept, where somebody has said so; ISO 8601 */
	keep: { until: string; why: string; by: string } | null;
	people: Record<string, Standing>;
	/** the address a person has now, where it has been corrected */
	addresses: Record<string, string>;
	phones: Record<string, string>;
	/** which ways of reaching a person have failed since a message last arrived */
	bounced: Record<string, Channel[]>;
	answers: Answers;
	proofs: Record<string, Proof>;
	/** who signs on paper */
	inks: Record<string, Ink>;
	session: Session;
	handOvers: HandOver[];
	wordings: WordingRequest[];
	/** when automatic reminders went to each, since it came to them */
	reminded: Record<string, string[]>;
	/** when each was last nudged */
	nudged: Record<string, string>;
	/** whether the nearness of the deadline has been told */
	warned: boolean;
	/** whether the nearness of the term's end has been told */
	renewalTold: boolean;
	/** shut to signers while somebody of the office corrects it; `until`: at most */
	correcting: { by: string; since: string; until: string } | null;
	/** how often it has been corrected as a whole */
	corrections: number;
	/** who had opened it before it was corrected, and has not been shown yet what is different */
	toTell: Record<string, SeenPart[]>;
	/** who was part of it before a correction */
	former: PlanPerson[];
	/** those who have looked at their copy */
	looked: string[];
	/** sealed copies by paper, and the evidence sheet; empty until sealed */
	sealed: Record<string, string>;
	evidence: string | null;
	/** how a visitor began it; null where the office sent it */
	begun: Begun | null;
	/** what has followed by itself, by its id in the intake */
	followed: string[];
	events: number;
}

export type Packet =
	| { status: 'none' }
	| (Sent & { status: 'out'; stop: number })
	/** out, but shut until the sender has judged somebody's identity */
	| (Sent & { status: 'held'; stop: number; at: string; person: string })
	| (Sent & { status: 'completed'; at: string })
	| (Sent & { status: 'declined'; at: string; person: string; reason: string })
	| (Sent & { status: 'withdrawn'; at: string; reason: string })
	| (Sent & { status: 'expired'; at: string });

export type SentPacket = Exclude<Packet, { status: 'none' }>;
export type Status = SentPacket['status'];
/** A packet that somebody still has to do something about. */
export type OpenPacket = Extract<SentPacket, { status: 'out' | 'held' }>;

export const initial: Packet = { status: 'none' };

export function isOpen(packet: SentPacket): packet is OpenPacket {
	return packet.status === 'out' || packet.status === 'held';
}

/** Somebody who is part of the packet, or was before a correction. */
export function anybodyIn(packet: Sent, id: string): PlanPerson | undefined {
	return personIn(packet.plan, id) ?? packet.former.find((person) => person.id === id);
}

/** The plan with those who were part of it before a correction, so that the record can name them. */
export function planOfRecord({ plan, former }: Sent): Plan {
	return { ...plan, people: [...plan.people, ...former.filter((one) => !personIn(plan, one.id))] };
}

/** Whether signers can't do anything just now, since it is being corrected. */
export function isShut(packet: SentPacket, now: string): boolean {
	return isOpen(packet) && packet.correcting !== null && Date.parse(now) < Date.parse(packet.correcting.until);
}

/** The address a message to that person goes to. */
export function addressOf(packet: Sent, person: string): string {
	return packet.addresses[person] ?? anybodyIn(packet, person)?.email ?? '';
}

/** The telephone number a text message to that person goes to; '' where there is none. */
export function phoneOf(packet: Sent, person: string): string {
	return packet.phones[person] ?? anybodyIn(packet, person)?.phone ?? '';
}

/** Those whose turn it is, and who have neither finished nor been left out. */
export function stillAt(packet: OpenPacket): string[] {
	return (packet.plan.stops[packet.stop]?.people ?? []).filter((id) =>
		['notified', 'unreachable', 'opened', 'held'].includes(packet.people[id]?.is ?? '')
	);
}

/** Whether somebody else of a person's group can still do what is to be done at this stop. */
export function othersOfGroup(packet: OpenPacket, person: string): boolean {
	return packet.plan.stops[packet.stop]?.anyOne === true && stillAt(packet).some((id) => id !== person);
}
