import type { Answers } from '../field';
import type { CheckFound, DocumentKind, IdentityWay, Side, Verdict } from '../identity';
import type { CommissionSaid } from '../notary';
import type { DoubtName } from '../paper';
import type { PlanChange, SeenPart } from './correcting/changes';
import type { Field, Paper, PlanPerson } from './plan';
import type { Channel, PutAway, WordingWish } from './state';

/** Who caused an event. */
export type Actor =
	/** `key`: the name of the API key by which another program came for them */
	| { kind: 'office'; account: string; name: string; key?: string }
	| { kind: 'person'; person: string }
	| { kind: 'pellum' };

/** From where: network address and what the device calls itself, cut to 200 characters. */
export interface From {
	address: string;
	device: string;
}

/** How long a page was in view, in whole seconds. */
export interface PageSeen {
	paper: string;
	page: number;
	seconds: number;
}

/**
 * How a document was taken in: pages (from 0) that look different from the file they were made from, and who has accepted
 * them as they are; none where every page looks as in the file.
 */
export interface PaperTaken {
	paper: string;
	pages: { page: number; by: string }[];
}

/** How a case began: through which intake, by whom, and what they entered (fields by id). */
export interface Begun {
	intake: string;
	/** whose packet it is: the account whose intake it is */
	account: string;
	heading: string;
	by: { name: string; email: string };
	/** they prepared it for the person it is about */
	prepares: boolean;
	/** they have proved their address by a code */
	proved: boolean;
	entered: string[];
}

/** What was sent or started by itself; `about` of its event says to whom, or what came of it. */
export type FollowedWhat = 'letter' | 'template' | 'row' | 'file' | 'not done';

/** A picture that was handed in: what is on it, and its SHA-256. */
export interface ShownPicture {
	side: Side;
	digest: string;
}

/** What the office may say to somebody who is held. */
export type HowJudged = 'another try' | 'let through' | 'refuse';

/** A doubt of a return, as the record holds it: what, and on which page (from 0). */
export interface DoubtFound {
	what: DoubtName;
	page: number | null;
}

/** `what`: a document's id, or 'evidence'; SHA-256 of the copy before, and with the time-stamp. */
export interface StampedCopy {
	what: string;
	was: string;
	now: string;
}

/** A document whose pages are others from now on. */
export interface PaperExchanged {
	paper: string;
	was: string;
	now: string;
}

/** A page that was added at the end of a document, for the act. */
export interface PageAdded {
	paper: string;
	/** SHA-256 of the document before, and with it */
	was: string;
	now: string;
	page: Paper['pages'][number];
}

/** What can happen to a packet. Past tense, since it has happened. */
export type PacketEvent =
	| {
			type: 'PacketSent';
			packet: string;
			reference: string;
			/** SHA-256 of the plan's canonical JSON; the plan itself is kept under it */
			plan: string;
			sender: { name: string; email: string; organisation: string };
			/** ISO 8601 in UTC, or null where the packet stays open until it is withdrawn */
			deadline: string | null;
			zone: string;
			/** the office's folder it lies in; without it, none but what the plan says */
			folder?: string;
			/** documents whose pages were compared with their files */
			taken?: PaperTaken[];
			/** where a visitor began it, through an intake */
			begun?: Begun;
	  }
	/** `copies`: those who get a copy of the present state, where the sender wants that */
	| { type: 'StopOpened'; stop: number; people: string[]; copies?: string[] }
	| { type: 'StopSkipped'; stop: number; people: string[] }
	/** another one of the group has done it */
	| { type: 'PersonSpared'; person: string; doneBy: string }
	/** `person` may be the sender, by the name that fields have for them */
	| { type: 'MessageSent'; person: string; purpose: MessagePurpose; to: string; channel?: Channel }
	| { type: 'MessageRefused'; person: string; purpose: MessagePurpose; to: string; why: string; channel?: Channel }
	| { type: 'LinkTaken'; person: string }
	| { type: 'PaperOpened'; person: string; from: From }
	| { type: 'CopyLookedAt'; person: string; from: From }
	| { type: 'ConsentGiven'; person: string; text: string; from: From }
	| { type: 'PagesSeen'; person: string; pages: PageSeen[]; from: From }
	/** which answers, never what they say */
	| { type: 'AnswersKept'; person: string; fields: string[]; from: From }
	| { type: 'CodeWrong'; person: string; from: From }
	| { type: 'CodeRight'; person: string; way: 'code' | Channel; from: From }
	/** pictures of a document; the digests are those of the pictures, which are kept apart and deleted by themselves */
	| { type: 'IdentityHandedIn'; person: string; try: string; kind: DocumentKind; pictures: ShownPicture[]; from: From }
	/** what came of each check; what was measured is kept with the pictures, and goes with them: `found` is its salted SHA-256 */
	| { type: 'IdentityJudged'; person: string; try: string; verdict: Verdict; checks: CheckFound[]; found: string }
	/** how many were right, never what was said */
	| { type: 'QuestionsAnswered'; person: string; right: number; of: number; enough: boolean; from: From }
	/** they showed it a while ago, for another packet, and are not asked again; without `shownAt`, then is the moment of the event */
	| { type: 'IdentityKnown'; person: string; way: IdentityWay; packet: string; shownAt?: string }
	/** without `why`: wrong codes */
	| { type: 'PersonHeld'; person: string; why?: 'failed' | 'unsure' }
	/** somebody of the office looked at the pictures of a try, or took them away */
	| { type: 'PicturesSeen'; person: string; try: string; taken: boolean }
	/** one of the two who must agree */
	| { type: 'JudgedByOne'; person: string; how: HowJudged; note: string }
	/** `word`: what is said to them */
	| { type: 'HoldReleased'; person: string; how: 'another try' | 'let through'; note: string; word?: string }
	/** the office won't take them for who they should be; `others`: somebody else of their group can still do it */
	| { type: 'PersonRefused'; person: string; note: string; others?: true }
	/** the pictures are gone, as they must be after so many days */
	| { type: 'PicturesDeleted'; tries: string[] }
	| { type: 'DeviceHanded'; person: string; guest: string; from: From }
	/** a host says who acted in front of them, and how they know */
	| { type: 'GuestConfirmed'; person: string; guest: string; how: string }
	/** the pages went out to be signed in ink; `digest` is of what is on them, `file` of what was handed out. From the office, to be posted */
	| { type: 'PaperFetched'; person: string; out: string; digest: string; file: string; pages: number; from?: From }
	/** pictures of the pages that came back, by their digests; `post`: the office took them in */
	| { type: 'ReturnHandedIn'; person: string; out: string; pictures: string[]; post: boolean; from?: From }
	/** held against what went out: what somebody has to look at, without what it says */
	| { type: 'ReturnChecked'; person: string; out: string; pages: number; doubts: DoubtFound[] }
	/** the scanned pages are the document from now on; `written`: fields that stand on them, and on no page of their own any more */
	| {
			type: 'ReturnAccepted';
			person: string;
			out: string;
			/** SHA-256 of the plan that holds from now on */
			plan: string;
			papers: PaperExchanged[];
			written: string[];
			note: string;
	  }
	| { type: 'ReturnAskedAgain'; person: string; out: string; pages: number[]; doubts: DoubtFound[]; word: string }
	| { type: 'ReturnRefused'; person: string; out: string; word: string }
	/** `person` is the notary throughout a session, `who` somebody who comes before them. `was`: when it was to be before */
	| { type: 'SessionAppointed'; person: string; starts: string; minutes: number; was: string | null }
	| { type: 'SessionBegun'; person: string; commission: CommissionSaid; fee: string; from: From }
	/** for today: it can go on another day, and nothing is done twice */
	| { type: 'SessionPaused'; person: string; why: string }
	| { type: 'RoomEntered'; person: string; from: From }
	/** 'lost': nothing was heard of them any more */
	| { type: 'RoomLeft'; person: string; how: 'left' | 'lost' }
	/** `how` the notary knows that it is them */
	| { type: 'PersonConfirmed'; person: string; who: string; how: string }
	| { type: 'OathTaken'; person: string; words: string; from: From }
	/** somebody is asked to sign now, and the notary looks on */
	| { type: 'TurnGiven'; person: string; who: string }
	/** `plan`: SHA-256 of the plan that holds from now on, with these fields */
	| { type: 'FieldsPlaced'; person: string; plan: string; fields: Field[] }
	/** somebody who had signed does so once more */
	| { type: 'PartOpenedAgain'; person: string; who: string; why: string }
	/** the act's text and the notary's seal stand on a page; nothing is final yet */
	| { type: 'ActDrawn'; person: string; plan: string; fields: Field[]; text: string; added?: PageAdded }
	| { type: 'ResultApproved'; person: string; from: From }
	| { type: 'ResultDoubted'; person: string; why: string; from: From }
	/** `ink`: on paper, by what went out under that id; `before`: the notary before whom it was done */
	| {
			type: 'PersonFinished';
			person: string;
			answers: Answers;
			shown: string;
			from: From;
			ink?: string;
			before?: string;
	  }
	| { type: 'PersonNamed'; person: string; name: string; email: string; note?: string }
	| {
			type: 'PartHandedOver';
			person: string;
			was: { name: string; email: string };
			name: string;
			email: string;
			why: string;
			from: From;
	  }
	/** `others`: somebody else of their group can still do it, so it goes on */
	| { type: 'PersonDeclined'; person: string; reason: string; from: From; others?: true }
	| ({ type: 'WordingAsked'; from: From } & WordingWish)
	| { type: 'WordingAnswered'; id: string; say: string }
	| { type: 'AddressCorrected'; person: string; was: string; now: string; channel?: Channel }
	| { type: 'DeadlineMoved'; was: string | null; now: string | null }
	/** shut to signers, until then at most */
	| { type: 'CorrectionBegun'; until: string }
	| { type: 'CorrectionGoesOn'; until: string }
	/** open again, unchanged */
	| { type: 'CorrectionLeft'; why: 'left' | 'time' }
	| {
			type: 'PlanCorrected';
			/** SHA-256 of the plan that holds from now on, and of the one that held */
			plan: string;
			was: string;
			changes: PlanChange[];
			/** the stop that is open now */
			stop: number;
			/** whose turn it was, and will be again */
			waits: string[];
			/** who is no longer part of it; `heard`: they had it already */
			gone: { person: PlanPerson; heard: boolean }[];
			/** who had opened it and finds something else, and what */
			toTell: Record<string, SeenPart[]>;
	  }
	| { type: 'CorrectionShown'; person: string; from: From }
	/** to another folder of the office; '': to none */
	| { type: 'FolderChanged'; was: string; now: string }
	| { type: 'TypeChanged'; was: string; now: string }
	/** out of the way, or into the bin; both can be taken back */
	| { type: 'PacketPutAway'; to: PutAway }
	| { type: 'PacketRestored'; was: PutAway }
	/** another packet has changed it; that one holds now */
	| { type: 'PacketAmended'; by_packet: string; reference: string }
	/** kept until that day whatever the rules say; null: as they say again */
	| { type: 'RetentionSet'; until: string | null; why: string }
	| { type: 'Nudged'; person: string }
	| { type: 'Reminded'; person: string }
	| { type: 'DeadlineNear'; people: string[] }
	| { type: 'TermEnding'; ends: string }
	/** something followed by itself, once under each id */
	| { type: 'FollowedUp'; id: string; what: FollowedWhat; about: string }
	| { type: 'PacketCompleted' }
	| { type: 'PacketWithdrawn'; reason: string }
	| { type: 'PacketExpired' }
	| { type: 'CopySealed'; paper: string; digest: string }
	| { type: 'EvidenceSealed'; digest: string }
	/**
	 * another time-stamp over the copies: each begins with the bytes that it was, and is proven until that moment (ISO 8601) by that
	 * method
	 */
	| { type: 'CopiesStamped'; copies: StampedCopy[]; until: string; method: string }
	| { type: 'CopyFetched'; person: string | null; what: string };

export type MessagePurpose =
	| 'your turn'
	| 'nudge'
	| 'reminder'
	| 'ending'
	| 'code'
	| 'state so far'
	| 'spared'
	| 'let go'
	| 'handed over'
	| 'wording'
	| 'wording answered'
	| 'held'
	| 'being looked at'
	| 'paper back'
	| 'paper again'
	| 'paper refused'
	| 'appointment'
	| 'term ending'
	| 'copies'
	| 'declined'
	| 'withdrawn'
	| 'expired';

/** An event as it stands in the record: place in its packet's chain (from 0), moment, cause, what happened. No event has these as its own. */
export type Recorded = { n: number; at: string; by: Actor } & PacketEvent;
