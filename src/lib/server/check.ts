import { backwards, firstBroken, rootOf, grown, leafHash, GENESIS, plansOf } from '../core/audit';
import { fold, type Recorded } from '../core/packet';
import type { Db } from './db';
import { sha256Bytes, sha256Text } from './ids';
import { planLookup } from './packets/act';
import { journalFaults } from './notary';
import { handedIn } from './packets/copies';
import { linksOf, treeHead } from './packets/log';
import { countFaults, waitFaults } from './pace/whole';
import { numberOf } from './office-record';
import { PRIVATE, veiledDigest } from './packets/private-words';
import { accountFaults, folderFaults, officeFaults, programFaults } from './office-record/whole';
import { intakeFaults } from './intakes/whole';
import { isMedia, isMoment, paperFaults, pictureFaults, rowFaults, tableFaults } from './check-tables';

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
	const office = officeFaults(db);
	faults.push(
		...(office.length > 0 ? office : [...accountFaults(db), ...folderFaults(db), ...programFaults(db)]),
		...intakeFaults(db),
		...journalFaults(db),
		...disposalFaults(db),
		...countFaults(db),
		...tableFaults(db)
	);
	return { packets: packets.length, events, blobs: checkBlobs(db, faults), faults };
}

function checkPacket(db: Db, packet: string): string[] {
	const faults: string[] = [];
	const links = linksOf(db, packet);
	const gone = goneFaults(db, packet, links);
	if (gone) return gone;
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
	const kept = db.prepare<[string], string>('SELECT plan FROM packet_plans WHERE packet = ? ORDER BY plan').pluck();
	if ([...new Set(plans)].sort().join() !== kept.all(packet).join())
		faults.push(`Packet ${packet}: the lists say other plans than its events.`);
	const events = links.map((link) => JSON.parse(link.body) as Recorded);
	for (const say of [
		...rowFaults(db, state, links),
		...pictureFaults(db, packet, events),
		...waitFaults(db, state, events),
		...paperFaults(db, packet, events)
	])
		faults.push(`Packet ${packet}: ${say}`);
	const words = db.prepare('SELECT 1 FROM private_words WHERE digest = ? AND packet = ? AND person = ?');
	for (const person of state.plan.people)
		for (const part of PRIVATE) {
			const digest = veiledDigest(person[part] ?? '');
			if (digest && !words.get(digest, packet, person.id))
				faults.push(`Packet ${packet}: the private words for ${person.id} are missing.`);
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
	const asked = db.prepare("SELECT 1 FROM jobs WHERE key = ? AND kind = 'seal'").get(`${packet}:seal`);
	if (state.status === 'completed' && state.evidence === null && !asked)
		faults.push(`Packet ${packet} is complete, but nothing seals it.`);
	return faults;
}

/** Of what has been disposed of no words are left, and every hash is; null where it hasn't been. */
function goneFaults(db: Db, packet: string, links: { body: string; hash: string }[]): string[] | null {
	const row = db
		.prepare<[string], { events: number; number: number }>(
			'SELECT d.events, d.disposal AS number FROM disposed d WHERE d.packet = ?'
		)
		.get(packet);
	if (!row)
		return links.some(({ body }) => body === '')
			? [`Packet ${packet}: words of its events are missing, and it was not disposed of.`]
			: null;
	const say = (what: string) => `Packet ${packet}, disposed of as ${numberOf(row.number)}: ${what}`;
	return [
		...(links.length === row.events ? [] : [say(`it had ${row.events} events, and has ${links.length} hashes.`)]),
		...(links.some(({ body }) => body !== '') ? [say('words of its events are still here.')] : []),
		...(db.prepare('SELECT 1 FROM packets WHERE id = ?').get(packet) ? [say('it still stands in the lists.')] : [])
	];
}

/** What has been disposed of, each with its line on the certificate. */
function disposalFaults(db: Db): string[] {
	return db
		.prepare<[], { number: number; lines: number; gone: number; certificate: string | null; waits: 0 | 1 }>(
			`SELECT d.number, CASE WHEN json_valid(d.lines) THEN json_array_length(d.lines) ELSE -1 END AS lines, d.certificate,
			 (SELECT count(*) FROM disposed g WHERE g.disposal = d.number) AS gone,
			 EXISTS (SELECT 1 FROM jobs j WHERE j.key = 'certificate:' || d.number AND j.done_at IS NULL) AS waits FROM disposals d`
		)
		.all()
		.flatMap(({ number, lines, gone, certificate, waits }) => [
			...(lines === gone ? [] : [`Certificate ${numberOf(number)} tells of ${lines} packets, and ${gone} went.`]),
			...(certificate === null && waits === 0 && gone > 0 ? [`Certificate ${numberOf(number)} was never made.`] : [])
		]);
}

/** Builds the tree anew from the events and compares its root and every kept node. */
function checkTree(db: Db, faults: string[]): number {
	const levels: string[][] = [[]];
	const at = (level: number, index: number) => levels[level]![index]!;
	let size = 0;
	let nodes = 0;
	for (const { seq, hash } of db
		.prepare<[], { seq: number; hash: string }>('SELECT seq, hash FROM events ORDER BY seq')
		.iterate()) {
		if (seq !== size + 1) {
			faults.push(`Event ${size + 1} is missing.`);
			return size;
		}
		for (const node of grown(sha256Bytes, size, leafHash(sha256Bytes, hash), at)) {
			(levels[node.level] ??= [])[node.index] = node.hash;
			if (node.level > 0) nodes += 1;
		}
		size += 1;
	}
	for (const node of db
		.prepare<[], { level: number; idx: number; hash: string }>('SELECT level, idx, hash FROM tree_nodes')
		.iterate()) {
		nodes -= 1;
		if (levels[node.level]?.[node.idx] !== node.hash) {
			faults.push(`The tree over all events is wrong at level ${node.level}, place ${node.idx}.`);
			return size;
		}
	}
	if (nodes !== 0)
		faults.push(`The tree over all events has ${nodes > 0 ? `${nodes} nodes too few` : `${-nodes} too many`}.`);
	if (faults.length === 0 && treeHead(db).root !== rootOf(sha256Bytes, size, at))
		faults.push('The tree over all events has another root.');
	return size;
}

function checkBlobs(db: Db, faults: string[]): number {
	let count = 0;
	for (const { digest, media, bytes, at } of db
		.prepare<[], { digest: string; media: string; bytes: Buffer; at: string }>(
			'SELECT digest, media, bytes, created_at AS at FROM blobs'
		)
		.iterate()) {
		count += 1;
		if (sha256Bytes(bytes) !== digest) faults.push(`The file ${digest} is not what it was.`);
		else if (!isMedia(bytes, media)) faults.push(`The file ${digest} is no ${media}, as it is said to be.`);
		if (!isMoment(at)) faults.push(`The file ${digest} came at no time there is.`);
	}
	return count;
}
