import type { Ground } from './correcting/ground';
import type { Standing } from './state';

/** What screens draw of packets: made by the server, read by the interface. */

/** One person on a thread, as screens draw it. */
export interface ThreadPerson {
	id: string;
	name: string;
	duty: string;
	standing: Standing['is'];
	/** since when it has been theirs; null while it hasn't */
	since: string | null;
	/** their stop opens only by a rule */
	byRule?: true;
	/** any one at their stop is enough */
	anyOne?: true;
}

/** The route as screens draw it: stops in order, people side by side. */
export type Thread = ThreadPerson[][];

/** A packet that is out and is being corrected, as the Bench has to know it. */
export interface Correcting {
	packet: string;
	reference: string;
	/** what may no longer be changed; null where the packet has ended */
	ground: Ground | null;
	/** until when it is shut to signers, ISO 8601; null where it is open again */
	until: string | null;
	by: string;
	ended: boolean;
}

/** Something only this account, or the office, can settle. */
/** What Pellum does by itself after something has happened. */
export type Work = 'seal' | 'message' | 'letter' | 'batch' | 'read' | 'backup';

export type Need =
	| {
			what: 'unreachable';
			packet: string;
			title: string;
			person: string;
			name: string;
			email: string;
			since: string;
			/** by text message, and at which number; null: by mail */
			phone: string | null;
	  }
	| { what: 'held'; packet: string; title: string; name: string; since: string }
	| { what: 'wording'; packet: string; title: string; name: string; words: string; instead: string; since: string }
	| { what: 'term'; packet: string; title: string; ends: string }
	| { what: 'turn'; packet: string; title: string; since: string }
	| { what: 'ending'; packet: string; title: string; deadline: string; names: string }
	| { what: 'declined'; packet: string; title: string; at: string }
	| { what: 'jobs'; count: number; error: string }
	/** the machine's clock was set forward, or back where below 0 */
	| { what: 'clock'; at: string; seconds: number }
	/** a kind of work that pauses after failures */
	| { what: 'lane'; lane: Work; since: string; waiting: number; error: string }
	/** work that is not tried any more by itself, or only after long pauses; `packet` is '' where it belongs to none */
	| {
			what: 'aside';
			work: Work | 'clock' | 'draft';
			id: string;
			packet: string;
			title: string;
			error: string;
			since: string;
	  }
	| ({ what: 'draft'; draft: string } & Omit<DraftRow, 'id'>);

/** A draft in a list. */
export interface DraftRow {
	id: string;
	title: string;
	savedAt: string;
	/** how many things stand between it and sending */
	open: number;
	/** when it goes by itself, and why it did not when its time came */
	sendAt: string | null;
	fault: string | null;
	/** the reference of the packet that it corrects */
	corrects: string | null;
}
