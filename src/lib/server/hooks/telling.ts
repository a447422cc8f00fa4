import type { Recorded } from '../../core/packet';
import { permitted } from '../access';
import { accountById } from '../accounts';
import type { House } from '../house';
import { queue } from '../jobs/outbox';
import { kindOfEvent, type HookKind } from './kinds';

/** Asks for messages to other programs, in the transaction of what they tell of. */

export interface HookJob {
	hook: string;
	packet: string;
}

/** Asks for what these events are told as to every hook whose account may see the packet. */
export function tellHooks(house: House, packet: string, events: readonly Recorded[]): void {
	const told = events.flatMap((event) => {
		const kind = kindOfEvent(event.type);
		return kind ? [{ kind, n: event.n, at: event.at }] : [];
	});
	if (told.length === 0) return;
	const hooks = house.db
		.prepare<[], { id: string; account: string; kinds: string }>(
			'SELECT id, account, kinds FROM hooks INDEXED BY hooks_now WHERE ended_at IS NULL'
		)
		.all();
	for (const { id, account, kinds } of hooks) {
		const wanted = told.filter(({ kind }) => (JSON.parse(kinds) as HookKind[]).includes(kind));
		if (wanted.length === 0 || !mayTell(house, account, packet)) continue;
		const first = !waits(house, id, packet);
		for (const { kind, n, at } of wanted)
			house.db
				.prepare('INSERT OR IGNORE INTO hook_deliveries (hook, packet, n, kind, at) VALUES (?, ?, ?, ?, ?)')
				.run(id, packet, n, kind, at);
		if (first) queueNext(house, id, packet, String(wanted[0]!.n));
	}
}

/** Whether a hook of this account may be told of the packet. */
export function mayTell(house: House, account: string, packet: string): boolean {
	const who = accountById(house, account);
	return who !== null && permitted(house.db, who, 'see', 'packet', packet);
}

/** Whether something of a packet is still to be told to a hook. */
export function waits(house: House, hook: string, packet: string): boolean {
	return (
		house.db
			.prepare("SELECT 1 FROM hook_deliveries WHERE hook = ? AND packet = ? AND state = 'waits' LIMIT 1")
			.get(hook, packet) !== undefined
	);
}

/** The next message of a packet to a hook, in the order of its events: one job for both. */
export function queueNext(house: House, hook: string, packet: string, which: string, dueAt?: string): void {
	queue(house, 'hook', `hook:${hook}:${packet}:${which}`, { hook, packet } satisfies HookJob, dueAt);
}
