import { createPrivateKey, sign, verify, X509Certificate } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { canonicalJson } from '../core/audit';
import { toPem } from '../press';
import type { Db } from './db';
import type { House } from './house';
import { keysThere } from './keys';
import { officeHead } from './office-record';
import { queue } from './jobs/outbox';
import { proofBetween, rootAt, treeHead } from './packets/log';

/**
 * Each day's root of the tree over all events and the last link of the office's record, signed and kept as a file beside the
 * database: whoever rewrites the database, however consistently, or cuts its end off, is at odds with them.
 */
export interface KeptRoot {
	format: 'pellum-root/1';
	at: string;
	size: number;
	root: string;
	office: { n: number; hash: string };
	/** the root kept before, and the proof that this one goes on from it (RFC 9162 §2.1.4) */
	since?: { size: number; root: string; proof: string[] };
	/** of the key that signed it, PEM; `between`: what issued it, up to the root */
	certificate: string;
	between?: string[];
}
export type SignedRoot = KeptRoot & { signature: string };

const folderOf = (data: string): string => path.join(data, 'roots');

/** Keeps today's, where there is something to tell of and none is kept yet. True when it wrote one. */
export async function keepRoot(house: House): Promise<boolean> {
	const head = treeHead(house.db);
	if (house.db.memory || head.size === 0) return false;
	const at = house.now().toISOString();
	const file = path.join(folderOf(house.config.folder), `${at.slice(0, 10)}.json`);
	if (existsSync(file)) return false;
	const { seal } = await keysThere(house);
	const kept: KeptRoot = {
		format: 'pellum-root/1',
		at,
		...head,
		office: officeHead(house.db),
		...sinceLast(house.db, house.config.folder, head.size),
		certificate: toPem(seal.certificate),
		...(seal.between?.length && { between: seal.between.map((one) => toPem(one.certificate)) })
	};
	// ECDSA with SHA-256 over the canonical JSON (RFC 8785), signature as DER
	const key = createPrivateKey({ key: Buffer.from(seal.key), format: 'der', type: 'pkcs8' });
	const signature = sign('sha256', Buffer.from(canonicalJson(kept)), key).toString('base64');
	mkdirSync(path.dirname(file), { recursive: true, mode: 0o700 });
	writeFileSync(`${file}.part`, JSON.stringify({ ...kept, signature } satisfies SignedRoot, null, '\t'));
	renameSync(`${file}.part`, file);
	queue(house, 'keeping', `witness:${at.slice(0, 10)}`, { do: 'witness', day: at.slice(0, 10) });
	house.changes.emit('jobs');
	return true;
}

function sinceLast(db: Db, data: string, size: number): Pick<KeptRoot, 'since'> {
	const last = rootDays(data).at(-1);
	const kept = last && (JSON.parse(readFileSync(path.join(folderOf(data), `${last}.json`), 'utf8')) as SignedRoot);
	if (!kept || kept.size === 0 || kept.size > size) return {};
	return { since: { size: kept.size, root: kept.root, proof: proofBetween(db, kept.size, size) } };
}

/** The days of which a root is kept, ISO 8601, in their order. */
export function rootDays(data: string): string[] {
	const folder = folderOf(data);
	if (!existsSync(folder)) return [];
	return readdirSync(folder)
		.flatMap((name) => /^(\d{4}-\d{2}-\d{2})\.json$/.exec(name)?.[1] ?? [])
		.sort();
}

/** The file of one day; null where none is kept. */
export function rootFile(data: string, day: string): Buffer | null {
	const file = path.join(folderOf(data), `${day}.json`);
	return /^\d{4}-\d{2}-\d{2}$/.test(day) && existsSync(file) ? readFileSync(file) : null;
}

/** Where the database is at odds with the roots that were kept of it, a sentence each. */
export function rootFaults(db: Db, data: string): string[] {
	const folder = folderOf(data);
	if (!existsSync(folder)) return [];
	const authorities = trusted(path.join(data, 'trust'));
	const { size } = treeHead(db);
	const office = officeHead(db);
	const link = db.prepare<[number], string>('SELECT hash FROM office_events WHERE n = ?').pluck();
	return readdirSync(folder)
		.filter((name) => name.endsWith('.json'))
		.sort()
		.flatMap((name) => {
			const kept = readRoot(path.join(folder, name), authorities);
			if (!kept) return [`The root kept in roots/${name} is not one that this Pellum has signed.`];
			const day = kept.at.slice(0, 10);
			if (kept.size > size)
				return [`On ${day} there were ${kept.size} events; now there are ${size}: the end is missing.`];
			if (rootAt(db, kept.size) !== kept.root)
				return [`The events are not those of ${day}: their root is another one.`];
			if (kept.office.n > office.n)
				return [`On ${day} the office record had ${kept.office.n} events; now it has ${office.n}.`];
			return kept.office.n === 0 || link.get(kept.office.n) === kept.office.hash
				? []
				: [`The office record is not that of ${day}.`];
		});
}

function trusted(folder: string): X509Certificate[] {
	if (!existsSync(folder)) return [];
	return readdirSync(folder)
		.filter((name) => name.endsWith('.pem'))
		.map((name) => new X509Certificate(readFileSync(path.join(folder, name))));
}

const readRoot = (file: string, authorities: X509Certificate[]): KeptRoot | null =>
	signedRoot(readFileSync(file, 'utf8'), authorities);

/** Whether one of these authorities issued it, or issued what issued it. */
function leadsTo(of: X509Certificate, between: X509Certificate[], authorities: X509Certificate[]): boolean {
	const issued = (by: X509Certificate) => by.ca && of.checkIssued(by) && of.verify(by.publicKey);
	if (authorities.some(issued)) return true;
	const next = between.find(issued);
	return (
		next !== undefined &&
		leadsTo(
			next,
			between.filter((one) => one !== next),
			authorities
		)
	);
}

/** A root as it was kept or published; null where none of these authorities stands behind its signature. */
export function signedRoot(text: string, authorities: X509Certificate[]): KeptRoot | null {
	try {
		const { signature, ...kept } = JSON.parse(text) as SignedRoot;
		const signer = new X509Certificate(kept.certificate);
		const known = leadsTo(
			signer,
			(kept.between ?? []).slice(0, 4).map((pem) => new X509Certificate(pem)),
			authorities
		);
		const ok = verify('sha256', Buffer.from(canonicalJson(kept)), signer.publicKey, Buffer.from(signature, 'base64'));
		return known && ok ? kept : null;
	} catch {
		return null;
	}
}
