import type { Answers } from '../field';
import type { Plan } from './plan';

/** How far a person is. A union, so that "signed but never notified" can't be written down. */
export type Standing =
	| { is: 'waiting' }
	| { is: 'notified'; since: string }
	| { is: 'unreachable'; since: string; why: string }
	| { is: 'opened'; since: string; at: string; consented: string | null }
	| { is: 'done'; since: string; at: string; shown: string }
	| { is: 'declined'; since: string; at: string; reason: string };

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
	people: Record<string, Standing>;
	/** the address a person has now, where it has been corrected */
	addresses: Record<string, string>;
	answers: Answers;
	/** sealed copies by paper, and the evidence sheet; empty until sealed */
	sealed: Record<string, string>;
	evidence: string | null;
	events: number;
}

export type Packet =
	| { status: 'none' }
	| (Sent & { status: 'out'; stop: number })
	| (Sent & { status: 'completed'; at: string })
	| (Sent & { status: 'declined'; at: string; person: string; reason: string })
	| (Sent & { status: 'withdrawn'; at: string; reason: string })
	| (Sent & { status: 'expired'; at: string });

export type SentPacket = Exclude<Packet, { status: 'none' }>;
export type Status = SentPacket['status'];

export const initial: Packet = { status: 'none' };

/** The address a message to that person goes to. */
export function addressOf(packet: Sent, person: string): string {
	return packet.addresses[person] ?? packet.plan.people.find((p) => p.id === person)?.email ?? '';
}
