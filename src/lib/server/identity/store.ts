import { randomBytes } from 'node:crypto';
import { canonicalJson } from '../../core/audit';
import { SIDES, type Check, type Measures, type PictureFault, type Side } from '../../core/identity';
import { inTransaction, type Db } from '../db';
import type { House } from '../house';
import { newId, sha256Bytes, sha256Text } from '../ids';
import { keyFor, lockBytes, unlockBytes } from '../secrets';

/** A try to show a document: its pictures, until they are deleted. */
export interface Try {
	id: string;
	packet: string;
	person: string;
	kind: string;
	begunAt: string;
	handedAt: string | null;
	/** its pictures are gone */
	deleted: boolean;
}

export interface KeptPicture {
	side: Side;
	digest: string;
	measures: Measures & { faults: PictureFault[] };
}

interface TryRow {
	id: string;
	packet: string;
	person: string;
	kind: string;
	begun_at: string;
	handed_at: string | null;
	locked_key: Buffer | null;
}

/** What the key is for under which those of tries are locked. */
const USE = 'identity pictures';

const COLUMNS = 'id, packet, person, kind, begun_at, handed_at, locked_key';
const tryOf = (row: TryRow): Try => ({
	id: row.id,
	packet: row.packet,
	person: row.person,
	kind: row.kind,
	begunAt: row.begun_at,
	handedAt: row.handed_at,
	deleted: row.locked_key === null
});

/** Newest first. */
export function triesOf(db: Db, packet: string, person: string): Try[] {
	return db
		.prepare<[string, string], TryRow>(
			`SELECT ${COLUMNS} FROM identity_tries WHERE packet = ? AND person = ? ORDER BY begun_at DESC`
		)
		.all(packet, person)
		.map(tryOf);
}

export function readTry(db: Db, id: string): Try | null {
	const row = db.prepare<[string], TryRow>(`SELECT ${COLUMNS} FROM identity_tries WHERE id = ?`).get(id);
	return row ? tryOf(row) : null;
}

/** The try that is being taken, begun where there is none. */
export function openTry(house: House, packet: string, person: string): Try {
	const there = triesOf(house.db, packet, person)[0];
	if (there && there.handedAt === null && !there.deleted) return there;
	const id = newId(house.now());
	house.db
		.prepare("INSERT INTO identity_tries (id, packet, person, kind, locked_key, begun_at) VALUES (?, ?, ?, '', ?, ?)")
		.run(id, packet, person, lockBytes(keyFor(house, USE), randomBytes(32)), house.now().toISOString());
	return readTry(house.db, id)!;
}

export function keepPicture(
	house: House,
	of: Try,
	side: Side,
	bytes: Uint8Array,
	measures: KeptPicture['measures']
): void {
	house.db
		.prepare(
			`INSERT INTO identity_pictures (try, side, digest, measures, bytes) VALUES (?, ?, ?, ?, ?)
			 ON CONFLICT (try, side) DO UPDATE SET digest = excluded.digest, measures = excluded.measures, bytes = excluded.bytes`
		)
		.run(of.id, side, sha256Bytes(bytes), JSON.stringify(measures), lockBytes(keyOf(house, of.id), bytes));
}

export function picturesOf(db: Db, id: string): KeptPicture[] {
	return db
		.prepare<[string], { side: Side; digest: string; measures: string }>(
			'SELECT side, digest, measures FROM identity_pictures WHERE try = ?'
		)
		.all(id)
		.map((row) => ({ ...row, measures: JSON.parse(row.measures) as KeptPicture['measures'] }))
		.toSorted((a, b) => SIDES.indexOf(a.side) - SIDES.indexOf(b.side));
}

/** A picture as it was kept (JPEG); null where it is not there any more. */
export function pictureBytes(house: House, id: string, side: string): Buffer | null {
	const row = house.db
		.prepare<[string, string], { bytes: Buffer }>('SELECT bytes FROM identity_pictures WHERE try = ? AND side = ?')
		.get(id, side);
	return row ? unlockBytes(keyOf(house, id), row.bytes) : null;
}

/** Keeps what the desk has found; gives the digest by which the record holds it, salted, since a birthday is soon guessed. */
export function keepFound(house: House, id: string, checks: Check[]): string {
	const found = canonicalJson({ salt: randomBytes(16).toString('hex'), checks });
	house.db
		.prepare('UPDATE identity_tries SET found = ? WHERE id = ?')
		.run(lockBytes(keyOf(house, id), new TextEncoder().encode(found)), id);
	return sha256Text(found);
}

/** What was measured; null where it is gone with its pictures, or was never there. */
export function foundOf(house: House, id: string): Check[] | null {
	const row = house.db
		.prepare<[string], { found: Buffer | null }>(
			'SELECT found FROM identity_tries WHERE id = ? AND locked_key IS NOT NULL'
		)
		.get(id);
	return row?.found
		? (JSON.parse(unlockBytes(keyOf(house, id), row.found).toString()) as { checks: Check[] }).checks
		: null;
}

export function markHandedIn(db: Db, id: string, kind: string, at: string): void {
	db.prepare('UPDATE identity_tries SET kind = ?, handed_at = ? WHERE id = ?').run(kind, at, id);
}

/** What was taken and not handed in is whoever's had the link: somebody else's part begins with nothing. */
export function dropUnfinished(db: Db, packet: string, person: string): void {
	db.prepare('DELETE FROM identity_tries WHERE packet = ? AND person = ? AND handed_at IS NULL').run(packet, person);
}

/** Pictures, what was measured, and their key go; that there was a try stays. */
export function deletePictures(db: Db, ids: readonly string[]): void {
	inTransaction(db, () => {
		for (const id of ids) {
			db.prepare('DELETE FROM identity_pictures WHERE try = ?').run(id);
			db.prepare('UPDATE identity_tries SET locked_key = NULL, found = NULL WHERE id = ?').run(id);
		}
	});
}

function keyOf(house: House, id: string): Buffer {
	const row = house.db
		.prepare<[string], { locked_key: Buffer | null }>('SELECT locked_key FROM identity_tries WHERE id = ?')
		.get(id);
	if (!row?.locked_key) throw new Error('the pictures of this try have been deleted');
	return unlockBytes(keyFor(house, USE), row.locked_key);
}
