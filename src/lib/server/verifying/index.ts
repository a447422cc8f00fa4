import { X509Certificate } from 'node:crypto';
import { isConsistent } from '../../core/audit';
import { isRefusal, type Refusal } from '../../core/refusal';
import { verifyInWorker, type Report } from '../../press';
import type { Db } from '../db';
import type { House } from '../house';
import { sha256Bytes } from '../ids';
import { knownNow, trustedRoots } from '../keys';
import { proofBetween, treeHead } from '../packets/log';
import { signedRoot } from '../roots';

/** Judging a file that somebody holds up, for whoever has it: nothing of it is kept. */

export async function judge(
	house: House,
	file: { name: string; bytes: Uint8Array },
	rootText: string | null
): Promise<Report | Refusal> {
	const trusted = (await trustedRoots(house)).map(({ pem }) => pem);
	const verdict = await verifyInWorker({ file: file.bytes, trusted, known: knownNow(house) });
	if (isRefusal(verdict)) return verdict;
	const digest = sha256Bytes(file.bytes);
	return {
		name: file.name,
		digest,
		verdict,
		kept: keptAs(house.db, digest),
		root: rootText === null ? null : againstRoot(house.db, verdict.tree ?? null, rootText, trusted),
		at: house.now().toISOString()
	};
}

/** Whether exactly these bytes are kept as a sealed copy, or a copy that begins with them and has later time-stamps. */
export function keptAs(db: Db, digest: string): Report['kept'] {
	const row = db
		.prepare<[string], { later: string | null }>('SELECT later FROM sealed_files WHERE digest = ? LIMIT 1')
		.get(digest);
	if (row) return row.later === null ? 'same' : 'later';
	const certificate = db.prepare('SELECT 1 FROM disposals WHERE certificate = ?').get(digest);
	return certificate ? 'same' : 'none';
}

/**
 * Holds a record against a root that somebody has kept: the later of the two trees has to begin with the earlier one.
 * @param tree the tree in which the record was sealed; null: the file has no record
 */
export function againstRoot(
	db: Db,
	tree: { size: number; root: string } | null,
	rootText: string,
	authorities: string[]
): { ok: boolean; say: string } {
	const kept = signedRoot(
		rootText,
		authorities.map((pem) => new X509Certificate(pem))
	);
	if (!kept) return { ok: false, say: 'The root that was given is not one that this Pellum has signed.' };
	if (!tree) return { ok: false, say: 'This file has no record of its own that could be held against a root.' };
	const day = kept.at.slice(0, 10);
	const [earlier, later] = tree.size <= kept.size ? [tree, kept] : [kept, tree];
	if (later.size > treeHead(db).size)
		return { ok: false, say: `The record of this Pellum is shorter than it was on ${day}: its end is missing.` };
	const proof = proofBetween(db, earlier.size, later.size);
	return isConsistent(sha256Bytes, earlier, later, proof)
		? { ok: true, say: `The record agrees with the root of ${day}: nothing that came before was changed since.` }
		: { ok: false, say: `The record does not agree with the root of ${day}: something that came before was changed.` };
}

/** The most events a proof is asked for at once is what there are; refuses by null what is no such pair. */
export function consistencyBetween(
	db: Db,
	from: number,
	to: number
): { from: number; to: number; proof: string[] } | null {
	const whole = Number.isInteger(from) && Number.isInteger(to);
	if (!whole || from < 1 || from > to || to > treeHead(db).size) return null;
	return { from, to, proof: proofBetween(db, from, to) };
}
