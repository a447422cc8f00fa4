import { backwards, firstBroken, rootOf, grown, leafHash, GENESIS, plansOf } from '../core/audit';
import { fold, type Recorded } from '../core/packet';
import type { Db } from './db';
import { sha256Bytes, sha256Text } from './ids';
import { planLookup } from './packets/act';
import { handedIn } from './packets/copies';
import { linksOf, treeHead } from './packets/log';
import { derive } from './packets/read-tables';

/** What was looked at and what is wrong, a sentence each. */
export interface Soundness {
	packets: number;
	events: number;
	blobs: number;
	faults: string[];
}

/** Checks a database against itself: pages, chains, tree, folds against read tables, blobs against hashes. */
export function checkData(db: Db): Soundness {
	const faults: string[] = [];
	const integrity = db.pragma('integrity_check', { simple: true });
	if (integrity !== 'ok') faults.push(`SQLite finds the file damaged: ${String(integrity)}`);
	const packets = db.prepare<[], { packet: string }>('SELECT DISTINCT packet FROM events').all();
	for (const { packet } of packets) faults.push(...checkPacket(db, packet));
	for (const { id } of db
		.prepare<[], { id: string }>('SELECT id FROM packets WHERE id NOT IN (SELECT packet FROM events)')
		.all())
		faults.push(`Packet ${id} stands in the lists but has no events.`);
	const events = checkTree(db, faults);
	return { packets: packets.length, events, blobs: checkBlobs(db, faults), faults };
}

function checkPacket(db: Db, packet: string): string[] {
	const faults: string[] = [];
	const links = linksOf(db, packet);
	const broken = firstBroken(sha256Text, links, GENESIS);
	if (broken >= 0) return [`Packet ${packet}: event ${broken + 1} does not follow from those before it.`];
	faults.push(
		...backwards(links.map((link) => JSON.parse(link.body) as Record<string, unknown>)).map(
			(say) => `Packet ${packet}: ${say}`
		)
	);
	let state;
	try {
		state = fold(
			links.map((link) => JSON.parse(link.body) as Recorded),
			planLookup(db)
		);
	} catch {
		return [`Packet ${packet}: its events can't be read, or its plan is missing.`];
	}
	if (state.status === 'none') return [`Packet ${packet}: its events lead nowhere.`];
	const json = db.prepare<[string], { json: string }>('SELECT json FROM plans WHERE digest = ?');
	const plans = plansOf(links.map((link) => JSON.parse(link.body) as Record<string, unknown>));
	if (plans.some((digest) => sha256Text(json.get(digest)?.json ?? '') !== digest))
		faults.push(`Packet ${packet}: its plan is not the one that was sent.`);
	const row = db
		.prepare<[string], Record<string, string | number | null>>(
			'SELECT title, status, sent_at AS sentAt, since, deadline, ended_at AS endedAt, thread, sealed, events, head, template, next_at AS nextAt, term_end AS termEnd, term_told AS termTold, follows, shut_until AS shutUntil, unreachable FROM packets WHERE id = ?'
		)
		.get(packet);
	const want = derive(state);
	if (!row) return [...faults, `Packet ${packet} has events but is missing from the lists.`];
	const wanted = {
		...want,
		thread: JSON.stringify(want.thread),
		sealed: JSON.stringify({ papers: state.sealed, evidence: state.evidence }),
		head: links[links.length - 1]!.hash
	};
	for (const key of Object.keys(row)) {
		if (row[key] !== wanted[key as keyof typeof wanted])
			faults.push(`Packet ${packet}: the lists say another ${key} than its events.`);
	}
	for (const digest of [
		...state.plan.papers.map((p) => p.digest),
		...state.plan.attachments.map((a) => a.digest),
		...handedIn(state).map(({ answer }) => answer.file),
		...Object.values(state.sealed),
		...(state.evidence ? [state.evidence] : [])
	]) {
		if (!db.prepare('SELECT 1 FROM blobs WHERE digest = ?').get(digest))
			faults.push(`Packet ${packet}: the file ${digest} is missing.`);
	}
	const missed = db
		.prepare<[string], { n: number }>("SELECT count(*) AS n FROM jobs WHERE key LIKE ? || ':%' AND kind = 'seal'")
		.get(packet)!.n;
	if (state.status === 'completed' && state.evidence === null && missed === 0)
		faults.push(`Packet ${packet} is complete, but nothing seals it.`);
	return faults;
}

/** Builds the tree anew from the events and compares its root and every kept node. */
function checkTree(db: Db, faults: string[]): number {
	const levels: string[][] = [[]];
	const at = (level: number, index: number) => levels[level]![index]!;
	let size = 0;
	for (const { seq, hash } of db
		.prepare<[], { seq: number; hash: string }>('SELECT seq, hash FROM events ORDER BY seq')
		.iterate()) {
		if (seq !== size + 1) {
			faults.push(`Event ${size + 1} is missing.`);
			return size;
		}
		for (const node of grown(sha256Bytes, size, leafHash(sha256Bytes, hash), at))
			(levels[node.level] ??= [])[node.index] = node.hash;
		size += 1;
	}
	for (const node of db
		.prepare<[], { level: number; idx: number; hash: string }>('SELECT level, idx, hash FROM tree_nodes')
		.iterate()) {
		if (levels[node.level]?.[node.idx] !== node.hash) {
			faults.push(`The tree over all events is wrong at level ${node.level}, place ${node.idx}.`);
			return size;
		}
	}
	if (faults.length === 0 && treeHead(db).root !== rootOf(sha256Bytes, size, at))
		faults.push('The tree over all events has another root.');
	return size;
}

function checkBlobs(db: Db, faults: string[]): number {
	let count = 0;
	for (const { digest, bytes } of db
		.prepare<[], { digest: string; bytes: Buffer }>('SELECT digest, bytes FROM blobs')
		.iterate()) {
		count += 1;
		if (sha256Bytes(bytes) !== digest) faults.push(`The file ${digest} is not what it was.`);
	}
	return count;
}
