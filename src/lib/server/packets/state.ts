import { fold, type Packet, type Plan, type PlanLookup } from '../../core/packet';
import type { Db } from '../db';
import { eventsOf } from './log';

/** A packet as its events say: read by everything, written by `act`. */

/** Looks frozen plans up in the database. */
export function planLookup(db: Db): PlanLookup {
	return (digest) =>
		JSON.parse(
			db.prepare<[string], { json: string }>('SELECT json FROM plans WHERE digest = ?').get(digest)!.json
		) as Plan;
}

/** The present state of a packet; `none` where there is no such packet. */
export function packetState(db: Db, packet: string): Packet {
	return fold(eventsOf(db, packet), planLookup(db));
}
