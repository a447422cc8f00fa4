import { canonicalJson, plansOf } from '../../core/audit';
import {
	decide,
	evolve,
	fold,
	type Actor,
	type Command,
	type Packet,
	type PacketEvent,
	type Plan,
	type Recorded,
	type SentPacket
} from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { holdPlan, planOfPacket } from '../access';
import type { Account } from '../accounts';
import { joiningTransaction, type Db } from '../db';
import type { House } from '../house';
import { sha256Text } from '../ids';
import { tellHooks } from '../hooks/telling';
import { queue } from '../jobs/outbox';
import { effectsOf } from './effects';
import { append, eventsOf } from './log';
import { writeReadTables } from './read-tables';
import { planLookup } from './state';

export { packetState, planLookup } from './state';

/** Somebody of the office, as whoever causes an event. */
export function office({ id, name, key }: Account): Actor {
	return { kind: 'office', account: id, name, ...(key !== undefined && { key }) };
}

/** The same, as whoever judges in a packet. */
export const judgeOf = ({ id, email }: Account) => ({ account: id, email });

/** Keeps a plan for good under the SHA-256 of its canonical JSON. */
export function freezePlan(db: Db, plan: Plan): string {
	const json = canonicalJson(plan);
	const digest = sha256Text(json);
	if (db.prepare('INSERT OR IGNORE INTO plans (digest, json) VALUES (?, ?)').run(digest, json).changes > 0)
		holdPlan(db, 'plan', digest, plan);
	return digest;
}

/** Time goes forward only: where the clock has been set back, an event is no earlier than the one before it. */
const notBefore = (now: string, last: string): string => (now < last ? last : now);

/** What a command brings with it that is no event. */
interface Along {
	/** runs in the same transaction after the events have been appended */
	also?: (state: SentPacket) => void;
	/** the batch that a packet is sent with */
	batch?: string;
}

/**
 * Carries a command out: decided by core, its events appended, read tables and outbox written, all in one
 * transaction. Nothing of it stands when any part fails.
 * @returns the new state, or core's refusal
 */
export function act(
	house: House,
	packet: string,
	by: Actor,
	command: Command,
	along: Along = {}
): SentPacket | Refusal {
	const result = joiningTransaction(house.db, () => {
		const events = eventsOf(house.db, packet);
		const before = fold(events, planLookup(house.db));
		const at = notBefore(house.now().toISOString(), events.at(-1)?.at ?? '');
		const decided = decide(before, command, at);
		if (isRefusal(decided)) return decided;
		if (before.status !== 'none' && decided.length === 0) {
			along.also?.(before);
			return before;
		}
		return commit(house, packet, before, decided, by, at, along);
	});
	if (!isRefusal(result)) {
		house.changes.emit('packet', packet);
		house.changes.emit('jobs');
	}
	return result;
}

function commit(
	house: House,
	packet: string,
	before: Packet,
	decided: PacketEvent[],
	by: Actor,
	at: string,
	{ also, batch }: Along
): SentPacket | Refusal {
	const { db } = house;
	const from = before.status === 'none' ? 0 : before.events;
	const recorded = decided.map((event, i): Recorded => ({ n: from + i, at, by: causeOf(event, by), ...event }));
	const head = append(db, packet, recorded);
	const plans = planLookup(db);
	const after = recorded.reduce<Packet>((state, event) => evolve(state, event, plans), before);
	if (after.status === 'none') return refuse('no-packet', 'There is no such packet.');
	const owner = ownerOf(db, packet) ?? ownerBy(recorded[0]!);
	writeReadTables(db, after, owner, head, batch);
	planOfPacket(db, packet, plansOf(recorded as unknown as Record<string, unknown>[]));
	for (const effect of recorded.flatMap((event) => effectsOf(after, event))) {
		queue(house, effect.kind, `${packet}:${effect.key}`, { packet, ...effect.payload }, at);
	}
	tellHooks(house, packet, recorded);
	also?.(after);
	return after;
}

const BY_ITSELF: PacketEvent['type'][] = ['StopOpened', 'StopSkipped', 'PersonSpared', 'PersonHeld', 'PacketCompleted'];

/** What follows by itself from somebody's deed is Pellum's, not theirs. */
function causeOf(event: PacketEvent, by: Actor): Actor {
	return BY_ITSELF.includes(event.type) ? { kind: 'pellum' } : by;
}

/** Whose packet it is by its first event: whoever sent it, or in whose name a visitor began it. */
export function ownerBy(first: Recorded): string {
	if (first.by.kind === 'office') return first.by.account;
	return first.type === 'PacketSent' ? (first.begun?.account ?? '') : '';
}

function ownerOf(db: Db, packet: string): string | undefined {
	return db.prepare<[string], { owner: string }>('SELECT owner FROM packets WHERE id = ?').get(packet)?.owner;
}
