import type { Answers } from '../field';

/** Who caused an event. */
export type Actor =
	{ kind: 'office'; account: string; name: string } | { kind: 'person'; person: string } | { kind: 'pellum' };

/** From where: network address and what the device calls itself, cut to 200 characters. */
export interface From {
	address: string;
	device: string;
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
	  }
	| { type: 'StopOpened'; stop: number; people: string[] }
	| { type: 'MessageSent'; person: string; purpose: MessagePurpose; to: string }
	| { type: 'MessageRefused'; person: string; purpose: MessagePurpose; to: string; why: string }
	| { type: 'PaperOpened'; person: string; from: From }
	| { type: 'ConsentGiven'; person: string; text: string; from: From }
	| { type: 'PersonFinished'; person: string; answers: Answers; shown: string; from: From }
	| { type: 'PersonNamed'; person: string; name: string; email: string }
	| { type: 'PersonDeclined'; person: string; reason: string; from: From }
	| { type: 'AddressCorrected'; person: string; was: string; now: string }
	| { type: 'PacketCompleted' }
	| { type: 'PacketWithdrawn'; reason: string }
	| { type: 'PacketExpired' }
	| { type: 'CopySealed'; paper: string; digest: string }
	| { type: 'EvidenceSealed'; digest: string }
	| { type: 'CopyFetched'; person: string | null; what: string };

export type MessagePurpose = 'your turn' | 'nudge' | 'copies' | 'declined' | 'withdrawn' | 'expired';

/** An event as it stands in the record: place in its packet's chain (from 0), moment, cause, what happened. */
export type Recorded = { n: number; at: string; by: Actor } & PacketEvent;
