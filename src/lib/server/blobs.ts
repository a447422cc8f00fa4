import type { Db } from './db';
import { sha256Bytes } from './ids';

export interface Blob {
	media: string;
	bytes: Buffer;
}

/** Keeps bytes under their SHA-256; the same bytes are kept once. `digest` where a worker has worked it out already. */
export function keepBlob(db: Db, bytes: Uint8Array, media: string, now: Date, digest = sha256Bytes(bytes)): string {
	db.prepare('INSERT OR IGNORE INTO blobs (digest, media, bytes, created_at) VALUES (?, ?, ?, ?)').run(
		digest,
		media,
		Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength),
		now.toISOString()
	);
	return digest;
}

/** Whether a file is kept under this digest. */
export const hasBlob = (db: Db, digest: string): boolean => blobMeta(db, digest) !== undefined;

export function readBlob(db: Db, digest: string): Blob | undefined {
	return db.prepare<[string], Blob>('SELECT media, bytes FROM blobs WHERE digest = ?').get(digest);
}

/** What a blob is and how large, without its bytes. */
export function blobMeta(db: Db, digest: string): { media: string; bytes: number } | undefined {
	return db
		.prepare<[string], { media: string; bytes: number }>(
			'SELECT media, length(bytes) AS bytes FROM blobs WHERE digest = ?'
		)
		.get(digest);
}
