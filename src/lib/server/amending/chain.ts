import { chainOf, type Link } from '../../core/amend';
import type { Db } from '../db';

/** The chain that a packet belongs to, from the lists: the first, and everything that changes it. */

/** Ids of all that hang together with a packet; itself alone where nothing changes it and it changes nothing. */
export function chainIds(db: Db, packet: string): string[] {
	const up = db.prepare<[string], string | null>('SELECT amends FROM packets WHERE id = ?').pluck();
	let root = packet;
	for (let at: string | null | undefined = packet; at; at = up.get(at)) root = at;
	const down = db.prepare<[string], string>('SELECT id FROM packets WHERE amends = ? ORDER BY id').pluck();
	const found = [root];
	for (const id of found) found.push(...down.all(id).filter((one) => !found.includes(one)));
	return found;
}

/** The same as people see it, in its order, with what holds. */
export function chainOfPacket(db: Db, packet: string): ReturnType<typeof chainOf> {
	const one = db.prepare<[string], Link>(
		'SELECT id, reference, title, amends, status, ended_at AS at FROM packets WHERE id = ?'
	);
	const links = chainIds(db, packet).flatMap((id) => one.all(id));
	// what it changed may have gone: then it is the first of what is left
	const here = new Set(links.map(({ id }) => id));
	return chainOf(links.map((link) => ({ ...link, amends: link.amends && here.has(link.amends) ? link.amends : null })));
}
