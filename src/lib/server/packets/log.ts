import {
	canonicalJson,
	consistencyProof,
	extend,
	GENESIS,
	grown,
	inclusionProof,
	leafHash,
	rootOf,
	plansOf,
	type AuditRecord,
	type NodeAt,
	type TreeNode
} from '../../core/audit';
import type { Recorded } from '../../core/packet';
import type { Db } from '../db';
import { sha256Bytes, sha256Text } from '../ids';

/**
 * The log of events: one chain a packet, one tree over all. Written only here, read by everything.
 */
export interface LoggedEvent {
	body: string;
	hash: string;
}

export function linksOf(db: Db, packet: string): LoggedEvent[] {
	return db.prepare<[string], LoggedEvent>('SELECT body, hash FROM events WHERE packet = ? ORDER BY n').all(packet);
}

export function eventsOf(db: Db, packet: string): Recorded[] {
	// of what has been disposed of only the hashes are left
	return linksOf(db, packet).flatMap(({ body }) => (body === '' ? [] : [JSON.parse(body) as Recorded]));
}

/** One event of a packet; undefined where it has none of that number. */
export function eventAt(db: Db, packet: string, n: number): Recorded | undefined {
	const body = db
		.prepare<[string, number], string>('SELECT body FROM events WHERE packet = ? AND n = ?')
		.pluck()
		.get(packet, n);
	return body === undefined || body === '' ? undefined : (JSON.parse(body) as Recorded);
}

function prepare(db: Db) {
	return {
		last: db.prepare<[string], { hash: string }>('SELECT hash FROM events WHERE packet = ? ORDER BY n DESC LIMIT 1'),
		size: db.prepare<[], { size: number | null }>('SELECT max(seq) AS size FROM events'),
		event: db.prepare<[number, string, number, string, string]>(
			'INSERT INTO events (seq, packet, n, body, hash) VALUES (?, ?, ?, ?, ?)'
		),
		node: db.prepare<[number, number, string]>('INSERT INTO tree_nodes (level, idx, hash) VALUES (?, ?, ?)'),
		leafAt: db.prepare<[number], { hash: string }>('SELECT hash FROM events WHERE seq = ?'),
		nodeAt: db.prepare<[number, number], { hash: string }>('SELECT hash FROM tree_nodes WHERE level = ? AND idx = ?')
	};
}

type Statements = ReturnType<typeof prepare>;
const prepared = new WeakMap<Db, Statements>();

/** Prepared once a database: appending is the hot path. */
function statements(db: Db): Statements {
	const s = prepared.get(db) ?? prepare(db);
	prepared.set(db, s);
	return s;
}

/** Appends events to a packet's chain and to the tree. Must run inside a transaction. Gives the chain's new head. */
export function append(db: Db, packet: string, events: Recorded[]): string {
	const s = statements(db);
	const previous = s.last.get(packet)?.hash ?? GENESIS;
	const links = extend(sha256Text, previous, events.map(canonicalJson));
	let size = s.size.get()?.size ?? 0;
	const at = nodeAt(db);
	links.forEach((link, i) => {
		s.event.run(size + 1, packet, events[i]!.n, link.body, link.hash);
		for (const node of grown(sha256Bytes, size, leafHash(sha256Bytes, link.hash), at)) keepNode(s, node);
		size += 1;
	});
	return links[links.length - 1]?.hash ?? previous;
}

/** The record of a packet as it stands, with the proof that its last event is in the tree. */
export function auditRecord(db: Db, packet: string): AuditRecord {
	const links = linksOf(db, packet);
	const first = JSON.parse(links[0]!.body) as Extract<Recorded, { type: 'PacketSent' }>;
	const json = db.prepare<[string], { json: string }>('SELECT json FROM plans WHERE digest = ?');
	const [plan, ...corrected] = plansOf(links.map((link) => JSON.parse(link.body) as Record<string, unknown>)).map(
		(digest) => json.get(digest)!.json
	);
	const leaf =
		db.prepare<[string], { seq: number }>('SELECT max(seq) AS seq FROM events WHERE packet = ?').get(packet)!.seq - 1;
	const { size, root } = treeHead(db);
	return {
		format: 'pellum-audit-record/1',
		packet,
		reference: first.reference,
		plan: plan!,
		...(corrected.length > 0 && { corrected }),
		links,
		tree: { leaf, size, root, path: inclusionProof(sha256Bytes, leaf, size, nodeAt(db)) }
	};
}

/** The root over the first `size` events. */
export function rootAt(db: Db, size: number): string {
	return rootOf(sha256Bytes, size, nodeAt(db));
}

export function treeHead(db: Db): { size: number; root: string } {
	const size = statements(db).size.get()?.size ?? 0;
	return { size, root: rootAt(db, size) };
}

/** That the first `to` events begin with the first `from`; see `consistencyProof`. */
export const proofBetween = (db: Db, from: number, to: number): string[] =>
	consistencyProof(sha256Bytes, from, to, nodeAt(db));

/** Leaves are the events' own hashes and aren't kept twice. */
function nodeAt(db: Db): NodeAt {
	const s = statements(db);
	return (level, index) =>
		level === 0 ? leafHash(sha256Bytes, s.leafAt.get(index + 1)!.hash) : s.nodeAt.get(level, index)!.hash;
}

function keepNode(s: Statements, node: TreeNode): void {
	if (node.level > 0) s.node.run(node.level, node.index, node.hash);
}
