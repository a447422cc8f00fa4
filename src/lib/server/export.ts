import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { Db } from './db';
import { packetState } from './packets/act';
import { trustFiles } from './keys';
import { copiesOf } from './packets/copies';
import { auditRecord } from './packets/log';
import { answersAsCsv, answersAsJson } from './packets/data';
import { officeRecord } from './office-record/whole';
import { readBlob } from './blobs';

/** Writes every packet that has ended: sealed copies, evidence sheet, record as JSON, answers as JSON and CSV. Overwrites what it wrote before. */
export function exportAll(db: Db, target: string): { packets: number; files: number } {
	let files = 0;
	const write = (folder: string, name: string, bytes: Uint8Array | string) => {
		mkdirSync(folder, { recursive: true });
		writeFileSync(path.join(folder, name), bytes);
		files += 1;
	};
	const ended = db
		.prepare<[], { id: string; reference: string }>(
			'SELECT id, reference FROM packets WHERE ended_at IS NOT NULL ORDER BY ended_at'
		)
		.all();
	for (const { id, reference } of ended) {
		const packet = packetState(db, id);
		if (packet.status === 'none') continue;
		const folder = path.join(target, reference);
		for (const copy of copiesOf(db, packet)) write(folder, copy.name, readBlob(db, copy.digest)!.bytes);
		write(folder, 'record.json', JSON.stringify(auditRecord(db, id), null, '\t'));
		write(folder, 'answers.json', answersAsJson(packet));
		write(folder, 'answers.csv', answersAsCsv(packet));
	}
	write(target, 'office-record.json', JSON.stringify(officeRecord(db), null, '\t'));
	for (const { name, content } of trustFiles(db)) write(path.join(target, 'trust'), name, content);
	return { packets: ended.length, files };
}
