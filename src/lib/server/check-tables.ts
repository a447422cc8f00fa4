import { ownerBy } from './packets/act';
import { X509Certificate } from 'node:crypto';
import { filesIn, isOpen, type Plan, type Recorded, type SentPacket } from '../core/packet';
import type { Db } from './db';
import { sha256Bytes } from './ids';
import { sha256Text } from './ids';
import { betweenOf, stampsOver } from './keys';
import { saltedDigest } from './packets/private-words';
import { keptOf } from './packets/kept';
import { orderedBy, sizeOf, templateTitle } from './packets/ordering';
import { derive, openReturns, openSession, openWordings, wordsToFind } from './packets/read-tables';

/** What is kept beside the events, compared with what they say: every row that can be worked out anew is. */

type Row = Record<string, string | number | null>;

export const isMoment = (text: string): boolean =>
	!Number.isNaN(Date.parse(text)) && new Date(text).toISOString() === text;

function isZip(bytes: Buffer): boolean {
	return bytes.subarray(0, 2).toString('latin1') === 'PK';
}

/** First bytes of what is kept by its media type; others can't be told by theirs. */
const HEADS: [string, (bytes: Buffer) => boolean][] = [
	['application/pdf', (bytes) => bytes.subarray(0, 1024).includes('%PDF-')],
	['image/png', (bytes) => bytes.subarray(0, 4).toString('latin1') === '\x89PNG'],
	['image/jpeg', (bytes) => bytes[0] === 0xff && bytes[1] === 0xd8],
	['application/vnd.openxmlformats-officedocument.wordprocessingml.document', isZip],
	['application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', isZip],
	// any bytes can be read as text of some kind; the digest says whether they are those that came
	['text/csv', () => true],
	// a file that somebody gave, before it has been looked into
	['application/octet-stream', () => true]
];

export function isMedia(bytes: Buffer, media: string): boolean {
	return HEADS.find(([name]) => name === media)?.[1](bytes) ?? false;
}

/** What the lists say of a packet otherwise than its events do. */
export function rowFaults(db: Db, state: SentPacket, links: { body: string; hash: string }[]): string[] {
	const id = state.packet;
	const row = db
		.prepare<[string], Row>(
			`SELECT reference, owner, title, status, folder, sent_at AS sentAt, since, deadline, ended_at AS endedAt, thread, sealed, events, head,
			 template, next_at AS nextAt, term_end AS termEnd, term_told AS termTold, follows, shut_until AS shutUntil, unreachable, batch, type, own_reference AS ownReference, put, put_at AS putAt, template_title AS templateTitle, size, kept_until AS keptUntil, kept_by AS keptBy, amends, amended_by AS amendedBy
			 FROM packets WHERE id = ?`
		)
		.get(id);
	if (!row) return ['it has events but is missing from the lists.'];
	const events = links.map((link) => JSON.parse(link.body) as Recorded);
	const want = derive(state);
	const wanted: Row = {
		...(want as unknown as Row),
		reference: state.reference,
		owner: ownerBy(events[0]!),
		thread: JSON.stringify(want.thread),
		sealed: JSON.stringify({ papers: state.sealed, evidence: state.evidence }),
		templateTitle: templateTitle(db, state),
		size: sizeOf(db, state),
		...keptOf(db, state),
		head: links[links.length - 1]!.hash,
		batch: db.prepare<[string], string>('SELECT batch FROM batch_packets WHERE packet = ?').pluck().get(id) ?? null
	};
	const faults = Object.keys(row).flatMap((key) =>
		row[key] === wanted[key] ? [] : [`the lists say another ${key} than its events.`]
	);
	const same = (what: string, kept: unknown, right: unknown) => {
		if (JSON.stringify(kept) !== JSON.stringify(right)) faults.push(`the lists say other ${what} than its events.`);
	};
	const byId = (a: { person: string; id?: string }, b: { person: string; id?: string }) =>
		(a.id ?? a.person) < (b.id ?? b.person) ? -1 : 1;
	same(
		'people',
		db
			.prepare<[string], (typeof want.people)[0]>(
				'SELECT person, name, email, phone, standing, since FROM packet_people WHERE packet = ? ORDER BY person'
			)
			.all(id),
		[...want.people].sort(byId)
	);
	same(
		'wishes for wording',
		db
			.prepare<[string], ReturnType<typeof openWordings>[0]>(
				'SELECT id, person, name, words, instead, at FROM packet_wordings WHERE packet = ? ORDER BY id'
			)
			.all(id),
		openWordings(state).sort(byId)
	);
	same(
		'returns on paper',
		db
			.prepare<[string], ReturnType<typeof openReturns>[0]>(
				'SELECT person, name, doubts, at FROM packet_returns WHERE packet = ? ORDER BY person'
			)
			.all(id),
		openReturns(state).sort(byId)
	);
	same(
		'sessions before a notary',
		db
			.prepare<[string], NonNullable<ReturnType<typeof openSession>>>(
				'SELECT commission, starts, running, people, signed, since FROM packet_sessions WHERE packet = ?'
			)
			.get(id) ?? null,
		openSession(state)
	);
	same(
		'words to find it by',
		db
			.prepare<[string], { words: string }>(
				'SELECT t.words FROM packet_numbers n JOIN packets_text t ON t.rowid = n.n WHERE n.packet = ?'
			)
			.get(id)?.words,
		wordsToFind(state, want.people)
	);
	same(
		'places in the order of the records',
		db
			.prepare<[string], { put: string; sort: string; value: string }>(
				'SELECT o.put, o.sort, o.value FROM packet_numbers m JOIN packet_order o ON o.n = m.n WHERE m.packet = ? ORDER BY o.sort'
			)
			.all(id),
		isOpen(state)
			? []
			: Object.entries(orderedBy(db, state))
					.map(([sort, value]) => ({ put: state.put?.where ?? '', sort, value }))
					.sort((a, b) => (a.sort < b.sort ? -1 : 1))
	);
	same(
		'files of its sealed copies',
		db
			.prepare<[string], string>('SELECT digest FROM sealed_files WHERE packet = ? AND later IS NULL ORDER BY digest')
			.pluck()
			.all(id),
		[...new Set([...Object.values(state.sealed), ...(state.evidence ? [state.evidence] : [])])].sort()
	);
	const stamped = events.findLast((one) => one.type === 'CopiesStamped');
	const proven = db
		.prepare<[string], { until: string; method: string }>('SELECT until, method FROM lasting WHERE of = ?')
		.get(id);
	const sealedAt = events.find((one) => one.type === 'EvidenceSealed')?.at;
	// '': it is still to be found out
	if (sealedAt && proven?.until !== '')
		same(
			'moment until which its copies are proven',
			proven ?? null,
			stamped ? { until: stamped.until, method: stamped.method } : stampsOver(db, sealedAt)
		);
	same(
		'numbers of events',
		db
			.prepare<[string], { n: number }>('SELECT n FROM events WHERE packet = ? ORDER BY n')
			.all(id)
			.map(({ n }) => n),
		events.map((_, n) => n)
	);
	return faults;
}

/** Pictures by which people showed who they are: those that the events name are here until they say that they were deleted, and no others. */
export function pictureFaults(db: Db, packet: string, events: readonly Recorded[]): string[] {
	const gone = new Set(events.flatMap((event) => (event.type === 'PicturesDeleted' ? event.tries : [])));
	return events.flatMap((event) => {
		if (event.type !== 'IdentityHandedIn') return [];
		const one = db
			.prepare<[string], { packet: string; person: string; kind: string; handed: string; open: number }>(
				`SELECT packet, person, kind, handed_at AS handed, locked_key IS NOT NULL AS open FROM identity_tries WHERE id = ?`
			)
			.get(event.try);
		const kept = db
			.prepare<[string], { side: string; digest: string }>('SELECT side, digest FROM identity_pictures WHERE try = ?')
			.all(event.try);
		const wanted = gone.has(event.try) ? [] : event.pictures;
		const same =
			one?.packet === packet &&
			one.person === event.person &&
			one.kind === event.kind &&
			(one.open === 1) === !gone.has(event.try) &&
			wanted.every(({ side, digest }) => kept.some((is) => is.side === side && is.digest === digest)) &&
			(wanted.length > 0 || kept.length === 0);
		return same ? [] : ['pictures by which somebody showed who they are are not those that its events name.'];
	});
}

/** What went out to be signed in ink, and the pictures that came back: those that the events name, unchanged. */
export function paperFaults(db: Db, packet: string, events: readonly Recorded[]): string[] {
	return events.flatMap((event) => {
		if (event.type === 'PaperFetched') {
			const there = db
				.prepare(
					`SELECT 1 FROM paper_outs WHERE id = ? AND packet = ? AND person = ? AND digest = ? AND file = ?
					 AND EXISTS (SELECT 1 FROM blobs b WHERE b.digest = paper_outs.digest)
					 AND EXISTS (SELECT 1 FROM blobs b WHERE b.digest = paper_outs.file)`
				)
				.get(event.out, packet, event.person, event.digest, event.file);
			return there ? [] : ['what went out to be signed in ink is not what its event names.'];
		}
		if (event.type !== 'ReturnHandedIn') return [];
		const kept = db
			.prepare<[string], { digest: string; bytes: Buffer }>('SELECT digest, bytes FROM paper_pictures WHERE out = ?')
			.all(event.out);
		const whole = event.pictures.every((digest) =>
			kept.some((one) => one.digest === digest && sha256Bytes(one.bytes) === digest)
		);
		return whole ? [] : ['pictures of pages that came back are not those that its events name.'];
	});
}

/** What does not hold between the tables. */
export function tableFaults(db: Db): string[] {
	const faults: string[] = [];
	const none = (say: string, sql: string) => {
		for (const row of db.prepare<[], { what: string }>(sql).iterate()) faults.push(`${say}: ${row.what}.`);
	};
	const broken = db.pragma('foreign_key_check') as { table: string; parent: string }[];
	for (const { table, parent } of broken) faults.push(`A row of ${table} names one of ${parent} that is not there.`);
	none(
		'The number of packets is wrong for',
		`SELECT status || ' in “' || folder || '”' AS what
		 FROM (SELECT folder, status, batch IS NOT NULL AS batched, coalesce(put, '') AS put, count(*) AS seen FROM packets GROUP BY folder, status, batched, coalesce(put, ''))
		 FULL JOIN packet_counts USING (folder, status, batched, put) WHERE coalesce(seen, 0) <> coalesce(n, 0)`
	);
	none(
		'Something is said to lie in a folder that is not there',
		`SELECT folder AS what FROM (SELECT folder FROM packets UNION SELECT folder FROM templates)
		 WHERE folder <> '' AND folder NOT IN (SELECT name FROM folders)`
	);
	for (const [table, column] of OF_PACKETS)
		none(
			`A row of ${table} is of no packet`,
			`SELECT ${column} AS what FROM ${table} WHERE ${column} <> '' AND ${column} NOT IN (SELECT id FROM packets)`
		);
	for (const [table, column] of DIGESTS)
		none(
			`A row of ${table} has a ${column} that is none`,
			`SELECT ${column} AS what FROM ${table} WHERE ${column} IS NOT NULL AND (length(${column}) <> 64 OR ${column} GLOB '*[^0-9a-f]*')`
		);
	for (const [table, column] of MOMENTS)
		for (const { what } of db
			.prepare<[], { what: string }>(`SELECT DISTINCT ${column} AS what FROM ${table} WHERE ${column} IS NOT NULL`)
			.iterate())
			if (!isMoment(what)) faults.push(`A row of ${table} has a ${column} that is no time: ${what}.`);
	for (const [table, column] of JSONS)
		none(
			`A row of ${table} has ${column} that can't be read`,
			`SELECT rowid AS what FROM ${table} WHERE ${column} IS NOT NULL AND NOT json_valid(${column})`
		);
	none(
		'A picture of a first page is none',
		"SELECT p.digest AS what FROM papers p JOIN blobs b ON b.digest = p.thumbnail WHERE b.media <> 'image/png'"
	);
	for (const { digest, salt, words } of db
		.prepare<[], { digest: string; salt: string; words: string }>('SELECT digest, salt, words FROM private_words')
		.iterate())
		if (saltedDigest(salt, words) !== digest) faults.push(`The private words ${digest} are not what they were.`);
	for (const { digest, json } of db
		.prepare<[], { digest: string; json: string }>('SELECT digest, json FROM plans')
		.iterate())
		if (sha256Text(json) !== digest) faults.push(`The plan ${digest} is not what it was.`);
		else faults.push(...unheld(db, 'plan', digest, json));
	for (const { id, plan } of db.prepare<[], { id: string; plan: string }>('SELECT id, plan FROM drafts').iterate())
		if (isReadable(plan)) faults.push(...unheld(db, 'draft', id, plan));
	none(
		'Something that is not here is said to hold files',
		`SELECT id AS what FROM holders h WHERE CASE kind WHEN 'draft' THEN id NOT IN (SELECT id FROM drafts)
		 ELSE id NOT IN (SELECT digest FROM plans) END`
	);
	none(
		'A copy is said to be the beginning of one that is none',
		`SELECT f.digest AS what FROM sealed_files f WHERE f.later IS NOT NULL AND NOT EXISTS
		 (SELECT 1 FROM sealed_files l WHERE l.digest = f.later AND l.packet = f.packet AND l.later IS NULL)`
	);
	none(
		'Something is said to last that is not here',
		`SELECT of AS what FROM lasting WHERE of NOT IN (SELECT id FROM packets)
		 AND of NOT IN (SELECT 'disposal:' || number FROM disposals WHERE certificate IS NOT NULL)`
	);
	none('Nobody can say whether a key was taken in', 'SELECT name AS what FROM keys WHERE own NOT IN (0, 1)');
	for (const { name, certificate, issuer, others } of db
		.prepare<[], { name: string; certificate: Buffer; issuer: Buffer; others: string }>(
			'SELECT name, certificate, issuer, between_them AS others FROM keys'
		)
		.iterate()) {
		const between = isReadable(others) ? betweenOf(others).map((one) => one.certificate) : [];
		const chain = [certificate, ...between, issuer];
		if (chain.slice(1).some((by, i) => !isIssued(chain[i]!, by)))
			faults.push(`The certificate “${name}” is not from its issuer.`);
	}
	return faults;
}

function isReadable(text: string): boolean {
	try {
		return typeof JSON.parse(text) === 'object';
	} catch {
		return false;
	}
}

/** Files of a plan that nothing says it holds. */
function unheld(db: Db, kind: 'plan' | 'draft', id: string, json: string): string[] {
	const held = new Set(
		db.prepare<[string, string], string>('SELECT digest FROM holders WHERE kind = ? AND id = ?').pluck().all(kind, id)
	);
	const lost = filesIn(JSON.parse(json) as Plan).filter((digest) => !held.has(digest));
	return lost.map((digest) => `The file ${digest} is not said to be held by the ${kind} ${id}.`);
}

function isIssued(certificate: Uint8Array, issuer: Uint8Array): boolean {
	try {
		return new X509Certificate(certificate).verify(new X509Certificate(issuer).publicKey);
	} catch {
		return false;
	}
}

/** Columns that name a packet without a foreign key. */
const OF_PACKETS = [
	['links', 'packet'],
	['saved_answers', 'packet'],
	['codes', 'packet'],
	['passes', 'packet'],
	['handed_in', 'packet'],
	['packet_numbers', 'packet'],
	['identity_tries', 'packet'],
	['identities_known', 'packet'],
	['private_words', 'packet'],
	['pace_behind', 'packet'],
	['waits', 'packet'],
	['forecasts', 'packet'],
	['field_last', 'packet']
] as const;
const DIGESTS = [
	['links', 'token_hash'],
	['sessions', 'token_hash'],
	['passes', 'token_hash'],
	['handed_in', 'digest'],
	['templates', 'plan']
] as const;
const MOMENTS = [
	['links', 'created_at'],
	['links', 'revoked_at'],
	['links', 'expires_at'],
	['saved_answers', 'saved_at'],
	['saved_answers', 'told_at'],
	['handed_in', 'at'],
	['accounts', 'created_at'],
	['accounts', 'closed_at'],
	['sessions', 'created_at'],
	['sessions', 'expires_at'],
	['passes', 'expires_at'],
	['codes', 'expires_at'],
	['jobs', 'due_at'],
	['jobs', 'done_at'],
	['jobs', 'set_aside_at'],
	['drafts', 'saved_at'],
	['drafts', 'send_at'],
	['drafts', 'binned_at'],
	['packets', 'put_at'],
	['templates', 'created_at'],
	['templates', 'changed_at'],
	['templates', 'last_used_at'],
	['templates', 'binned_at'],
	['template_versions', 'at'],
	['batches', 'made_at'],
	['folders', 'made_at'],
	['paper_looks', 'at'],
	['paper_scans', 'at'],
	['mailbox', 'at'],
	['phone', 'at'],
	['saved_texts', 'saved_at'],
	['troubles', 'since'],
	['troubles', 'again_at']
] as const;
const JSONS = [
	['keys', 'between_them'],
	['keys', 'withdrawn'],
	['papers', 'pages'],
	['papers', 'words'],
	['papers', 'stripped'],
	['papers', 'drawn'],
	['papers', 'compared'],
	['papers', 'scans'],
	['jobs', 'payload'],
	['drafts', 'plan'],
	['batches', 'columns'],
	['batches', 'setting'],
	['batches', 'origin'],
	['mailbox', 'attachments']
] as const;
