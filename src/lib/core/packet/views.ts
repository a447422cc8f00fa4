import type { Ground } from './correcting/ground';
import type { DeliveryWay } from './plan';
import type { Sending } from './sending';
import type { Stage } from './sessions';
import type { Ink, PutAway, SentPacket, Standing, Status } from './state';

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

/** When a packet that is out will likely be done, ISO 8601; moments are null where the records do not reach so far. */
export interface Likely {
	/** half of what is like it was done by then */
	middle: string | null;
	/** the share of what is like it that is not done by its last day; null where it has none */
	chance: number | null;
	/** the share of what is like the part that has waited longest, that was over by now */
	unusual: number;
	/** too few have ended to say any of it */
	tooFew: boolean;
}

/** The same in full, as a packet's own page shows it. */
export interface LikelyCourse extends Likely {
	/** how many of its own kind it rests on, where the fewest are */
	restsOn: number;
	/** by a stop's place in the route; null: it is not sure to open */
	stops: { place: number; dates: LikelyDates | null }[];
	whole: LikelyDates;
}

/** Moments, ISO 8601, before which so many of a hundred like it were done: 5, 25, 50, 75, 95; null: nobody can say. */
export interface LikelyDates {
	early: string | null;
	quarter: string | null;
	middle: string | null;
	threeQuarters: string | null;
	late: string | null;
}

/** A packet that is out, in a list. */
export interface OutRow {
	id: string;
	title: string;
	reference: string;
	folder: string;
	/** the name of who sent it */
	sender: string;
	sentAt: string;
	deadline: string | null;
	shutUntil: string | null;
	thread: Thread;
	/** half of those of its template are done by then; null where too few have ended */
	usualHours: number | null;
	/** when it will likely be done; null: nobody has reckoned it yet */
	likely: Likely | null;
}

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

/** What Pellum does by itself after something has happened. */
export type Work =
	| 'seal'
	| 'message'
	| 'letter'
	| 'batch'
	| 'read'
	| 'backup'
	| 'hook'
	| 'case'
	| 'follow'
	| 'identity'
	| 'paper'
	| 'notary'
	| 'words'
	| 'forget'
	| 'keeping'
	| 'pace';

/** Something only this account, or the office, can settle. */
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
	/** what came back on paper waits to be looked at */
	| { what: 'paper'; packet: string; title: string; person: string; name: string; doubts: number; since: string }
	| { what: 'wording'; packet: string; title: string; name: string; words: string; instead: string; since: string }
	| { what: 'term'; packet: string; title: string; ends: string }
	| { what: 'turn'; packet: string; title: string; since: string }
	| { what: 'ending'; packet: string; title: string; deadline: string; names: string }
	/** it will likely not be done by its last day; `helps`: the one thing that may, or '' */
	| {
			what: 'late';
			packet: string;
			title: string;
			deadline: string;
			names: string;
			chance: number;
			/** null: nobody can say when it will be done; `unusual`: it has waited longer than so many like it */
			middle: string | null;
			unusual: number;
			restsOn: number;
			helps: string;
	  }
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
	/** of a batch that stands open: what of its newest sheet waits for somebody */
	| { what: 'sheet'; batch: string; name: string; say: string }
	| ({ what: 'draft'; draft: string } & Omit<DraftRow, 'id'>);

/** How the packets of a batch stand. */
export interface BatchStanding {
	have: number;
	out: number;
	/** neither: declined, withdrawn, over */
	ended: number;
	/** how many of those that are out have somebody who can't be reached */
	unreachable: number;
	/** since when the longest waits, ISO 8601 */
	longest: string | null;
	/** the first last day of those that are out, ISO 8601 */
	until: string | null;
}

/** A batch that has something out, as one line of the Desk. */
export interface BatchLine extends BatchStanding {
	id: string;
	name: string;
	/** what its template is called */
	template: string;
	/** the account that looks has made it */
	mine: boolean;
}

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

/** The packet page: the state in words for the office, with the record newest first. */
export interface PacketView {
	id: string;
	reference: string;
	title: string;
	status: Status;
	why: string;
	sender: string;
	sentAt: string;
	deadline: string | null;
	zone: string;
	locale: string;
	endedAt: string | null;
	thread: Thread;
	people: {
		id: string;
		name: string;
		email: string;
		phone: string;
		deliver: DeliveryWay;
		duty: string;
		standing: string;
		why: string;
		/** when they were last nudged, so that it is not offered again within the hour */
		nudged: string | null;
		/** they are asked to show who they are */
		identity: boolean;
		/** how far they have come with signing on paper; 'may': they have not fetched it, null: they may not */
		ink: Ink['is'] | 'may' | null;
	}[];
	/** the session before a notary; null where there is none */
	session: {
		notary: string;
		act: string;
		appointment: { starts: string; minutes: number } | null;
		running: boolean;
		/** as it was shown, or will be; '' where none is */
		fee: string;
		hours: string;
		/** whether it is to come or going on */
		open: boolean;
		people: { id: string; name: string; stage: Stage; doubt: string }[];
	} | null;
	/** who is held, where somebody is */
	held: string | null;
	/** parts that have been handed over, each with its reason */
	handOvers: SentPacket['handOvers'];
	wordings: (SentPacket['wordings'][number] & { name: string })[];
	folder: string;
	type: string;
	/** where it has been put away; null: it hasn't */
	put: PutAway | null;
	/** the chain that it belongs to, in its order, with which of it holds; null where nothing changes it and it changes nothing */
	chain: { id: string; reference: string; status: string; holds: boolean; here: boolean }[] | null;
	/** how long it is kept: its last day, and by whose word or which rule; null where nothing says */
	kept: { until: string; by: string; said: boolean } | null;
	/** the legal holds it is under */
	holds: { id: string; name: string }[];
	sending: Sending;
	termEnd: string | null;
	/** being corrected: by whom, shut until when at most */
	correcting: { by: string; until: string } | null;
	/** a correction that was begun and not sent, by its draft */
	correction: string | null;
	/** the intake that a visitor began it through */
	begun: { intake: string; heading: string; by: string } | null;
	/** the packet this is a new version of, and the one that is a new version of this */
	follows: { id: string; reference: string } | null;
	followedBy: { id: string; reference: string } | null;
	papers: SentPacket['plan']['papers'];
	attachments: SentPacket['plan']['attachments'];
	fields: SentPacket['plan']['fields'];
	answers: SentPacket['answers'];
	/** the templates it was made from, and which version of each */
	from: { template: string; title: string; version: number }[];
	/** what documents were made from, where that was no PDF */
	sources: { paper: string; n: number; name: string }[];
	sealed: boolean;
	/** what people handed in */
	files: { what: string; name: string }[];
	record: { n: number; at: string; said: string; person: string | null; technical: [name: string, value: string][] }[];
}
