import type { Answers } from '../field';
import type { Begun, FollowedWhat, From, MessagePurpose, PageSeen, PaperTaken } from './events';
import type { Plan } from './plan';
import type { Channel, WordingWish } from './state';

/** Names and addresses, by the person's id in the plan; the note is for whoever is named. */
export type Names = Record<string, { name: string; email: string; note?: string }>;

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
	| { do: 'release'; person: string; how: 'another try' | 'let through'; note: string }
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
	  }
	| { do: 'handOver'; person: string; name: string; email: string; why: string; from: From }
	| { do: 'decline'; person: string; reason: string; from: From }
	| ({ do: 'askWording'; from: From } & WordingWish)
	| { do: 'answerWording'; id: string; say: string }
	| { do: 'correctAddress'; person: string; email: string }
	| { do: 'correctPhone'; person: string; phone: string }
	| { do: 'moveDeadline'; to: string }
	| { do: 'moveToFolder'; folder: string }
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
	| { do: 'recordFetched'; person: string | null; what: string };
