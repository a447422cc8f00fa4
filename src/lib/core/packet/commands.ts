import type { Answers } from '../field';
import type { From, MessagePurpose } from './events';
import type { Plan } from './plan';

/** Names and addresses, by the person's id in the plan. */
export type Names = Record<string, { name: string; email: string }>;

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
	  }
	| { do: 'recordMessage'; person: string; purpose: MessagePurpose; to: string; refused?: string }
	| { do: 'openPaper'; person: string; from: From }
	| { do: 'consent'; person: string; text: string; from: From }
	| {
			do: 'finish';
			person: string;
			answers: Answers;
			/** whom they name, by the id of the place */
			names?: Names;
			shown: string;
			from: From;
	  }
	| { do: 'decline'; person: string; reason: string; from: From }
	| { do: 'correctAddress'; person: string; email: string }
	| { do: 'withdraw'; reason: string }
	| { do: 'expire' }
	| { do: 'recordSealed'; papers: Record<string, string>; evidence: string }
	| { do: 'recordFetched'; person: string | null; what: string };
