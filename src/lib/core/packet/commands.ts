import type { Answers } from '../field';
import type { Commission } from '../notary';
import type { CheckFound, DocumentKind, IdentityWay, Verdict } from '../identity';
import type {
	Begun,
	DoubtFound,
	FollowedWhat,
	From,
	HowJudged,
	ShownPicture,
	MessagePurpose,
	PageAdded,
	PageSeen,
	PaperExchanged,
	PaperTaken,
	StampedCopy
} from './events';
import type { Field, Plan } from './plan';
import type { Channel, PutAway, WordingWish } from './state';

/** Names and addresses, by the person's id in the plan; the note is for whoever is named. */
export type Names = Record<string, { name: string; email: string; note?: string }>;

/** Somebody of the office who judges: they must not be somebody of the packet. */
export interface Judge {
	account: string;
	email: string;
}

/** What may be asked of a packet. Imperative, since it may be refused. */
export type Command =
	| {
			do: 'send';
			packet: string;
			reference: string;
			plan: Plan;
			planDigest: string;
			sender: { name: string; email: string; organisation: string };
			zone: string;
			folder?: string;
			/** ISO 8601 days on which nobody works besides Saturdays and Sundays */
			holidays?: string[];
			taken?: PaperTaken[];
			begun?: Begun;
	  }
	| { do: 'recordFollowUp'; id: string; what: FollowedWhat; about: string }
	| {
			do: 'recordMessage';
			person: string;
			purpose: MessagePurpose;
			to: string;
			channel: Channel;
			refused?: string;
	  }
	| { do: 'takeLink'; person: string }
	| { do: 'openPaper'; person: string; from: From }
	| { do: 'lookAtCopy'; person: string; from: From }
	| { do: 'consent'; person: string; text: string; from: From }
	| { do: 'seePages'; person: string; pages: PageSeen[]; from: From }
	| { do: 'keepAnswers'; person: string; fields: string[]; from: From }
	| { do: 'enterCode'; person: string; right: boolean; most: number; from: From }
	| { do: 'handInIdentity'; person: string; try: string; kind: DocumentKind; pictures: ShownPicture[]; from: From }
	| { do: 'judgeIdentity'; person: string; try: string; verdict: Verdict; checks: CheckFound[]; found: string }
	| { do: 'answerQuestions'; person: string; right: number; of: number; enough: boolean; from: From }
	| { do: 'knowIdentity'; person: string; way: IdentityWay; packet: string; shownAt: string }
	| { do: 'seePictures'; person: string; try: string; taken: boolean }
	| { do: 'deletePictures'; tries: string[] }
	/** `judges`: how many must agree */
	| { do: 'release'; person: string; how: HowJudged; note: string; word?: string; judge: Judge; judges: number }
	| { do: 'fetchPaper'; person: string; out: string; digest: string; file: string; pages: number; from?: From }
	| { do: 'handInReturn'; person: string; out: string; pictures: string[]; post: boolean; from?: From }
	| { do: 'checkReturn'; person: string; out: string; pages: number; doubts: DoubtFound[] }
	| {
			do: 'acceptReturn';
			person: string;
			out: string;
			papers: PaperExchanged[];
			/** SHA-256 of the plan with these documents, see `exchangedPlan` */
			plan: string;
			/** fields whose answers, or places, are in the pictures */
			written: string[];
			/** what they had typed before, and what somebody confirmed of what they wrote */
			answers: Answers;
			note: string;
			from: From;
			/** without it: by itself, since nothing was in doubt */
			judge?: Judge;
	  }
	| { do: 'askReturn'; person: string; out: string; pages: number[]; word: string; judge: Judge }
	| { do: 'refuseReturn'; person: string; out: string; word: string; judge: Judge }
	/** `commission`: as it stands now, with whoever keeps them */
	| { do: 'appointSession'; starts: string; minutes: number; commission: Commission }
	| { do: 'beginSession'; person: string; commission: Commission; from: From }
	| { do: 'pauseSession'; person: string; why: string }
	| { do: 'enterRoom'; person: string; from: From }
	| { do: 'leaveRoom'; person: string; how: 'left' | 'lost' }
	| { do: 'confirmPerson'; person: string; who: string; how: string }
	| { do: 'takeOath'; person: string; words: string; from: From }
	| { do: 'giveTurn'; person: string; who: string }
	| { do: 'placeFields'; person: string; plan: string; fields: Field[] }
	| { do: 'openPartAgain'; person: string; who: string; why: string }
	| { do: 'drawAct'; person: string; plan: string; fields: Field[]; text: string; added?: PageAdded }
	| { do: 'approveResult'; person: string; from: From }
	| { do: 'doubtResult'; person: string; why: string; from: From }
	| { do: 'handDevice'; person: string; guest: string; from: From }
	| {
			do: 'finish';
			person: string;
			answers: Answers;
			/** whom they name, by the id of the place */
			names?: Names;
			/** how a host knows who acted in front of them, by the guest's id */
			guests?: Record<string, string>;
			shown: string;
			from: From;
			/** of whoever notarises: the commission as it stands now */
			commission?: Commission;
	  }
	| { do: 'handOver'; person: string; name: string; email: string; why: string; from: From }
	| { do: 'decline'; person: string; reason: string; from: From }
	| ({ do: 'askWording'; from: From } & WordingWish)
	| { do: 'answerWording'; id: string; say: string }
	| { do: 'correctAddress'; person: string; email: string }
	| { do: 'correctPhone'; person: string; phone: string }
	| { do: 'moveDeadline'; to: string }
	| { do: 'moveToFolder'; folder: string }
	| { do: 'nameType'; type: string }
	| { do: 'putAway'; to: PutAway }
	| { do: 'restore' }
	| { do: 'noteAmended'; by: string; reference: string }
	| { do: 'keepUntil'; until: string | null; why: string }
	| { do: 'beginCorrection' }
	| { do: 'goOnCorrecting' }
	| { do: 'leaveCorrection' }
	| {
			do: 'correct';
			plan: Plan;
			planDigest: string;
			/** whether the organisation permits exchanging documents while nobody has finished */
			mayExchange: boolean;
			/** ISO 8601 days on which nobody works besides Saturdays and Sundays */
			holidays?: string[];
	  }
	| { do: 'noteShown'; person: string; from: From }
	| { do: 'nudge'; person: string }
	| { do: 'withdraw'; reason: string }
	/** what time has brought: reminders, the warning, the end, the notice of a term's end */
	| { do: 'keepTime' }
	| { do: 'recordSealed'; papers: Record<string, string>; evidence: string }
	| { do: 'recordStamped'; copies: StampedCopy[]; until: string; method: string }
	| { do: 'recordFetched'; person: string | null; what: string };
