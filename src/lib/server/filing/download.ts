import { distinctNames, safeName } from '../../core/keeping';
import { isOpen, type SentPacket } from '../../core/packet';
import { permitted } from '../access';
import type { Account } from '../accounts';
import type { House } from '../house';
import { asFile, type Leaving } from '../leaving';
import { packetState } from '../packets/act';
import { readBlob } from '../blobs';
import { copiesOf } from '../packets/copies';
import { answersAsJson, answersByKey } from '../packets/data';
import { auditRecord } from '../packets/log';
import { recordFetch } from '../packets/office';
import { sizeOf } from '../packets/ordering';
import { rowsOf } from '../packets/rows';
import { streamedZip, type ZipFile } from '../zip';

/** What leaves the records for many packets at once. Only those that the account may see; what is chosen besides is passed over. */

const readable = (house: House, account: Account, ids: readonly string[]): string[] =>
	[...new Set(ids)].filter((id) => permitted(house.db, account, 'see', 'packet', id));

/**
 * Copies, evidence sheets, records and answers of many as one ZIP, a folder each, made while it is fetched: no more than one file is in
 * memory at a time. That each was downloaded stands in its record.
 * @returns the bytes as they come, and about how many there will be
 */
export function copiesAsZip(
	house: House,
	account: Account,
	ids: readonly string[]
): { stream: ReadableStream<Uint8Array>; bytes: number } {
	const packets = readable(house, account, ids).flatMap((id) => {
		const state = packetState(house.db, id);
		return state.status === 'none' || isOpen(state) ? [] : [{ id, bytes: sizeOf(house.db, state) }];
	});
	const named = distinctNames();
	const stream = streamedZip(
		packets.map(({ id }) => () => {
			const state = packetState(house.db, id);
			// disposed of meanwhile
			if (state.status === 'none') return [];
			recordFetch(house, account, id, 'everything, with others');
			return filesOf(house, state, named);
		})
	);
	return { stream, bytes: packets.reduce((sum, one) => sum + one.bytes + 8000, 0) };
}

function filesOf(house: House, state: SentPacket, named: (name: string) => string): ZipFile[] {
	const folder = named(safeName(`${state.plan.title} ${state.reference}`));
	const text = (name: string, words: string) => ({
		name: `${folder}/${name}`,
		bytes: new Uint8Array(Buffer.from(words))
	});
	return [
		...copiesOf(house.db, state).map(({ name, digest }) => ({
			name: `${folder}/${name}`,
			bytes: new Uint8Array(readBlob(house.db, digest)!.bytes)
		})),
		text('record.json', JSON.stringify(auditRecord(house.db, state.packet), null, '\t')),
		text('answers.json', answersAsJson(state))
	];
}

/** The answers of many, a row each, a column a key. */
export async function answersOfMany(
	house: House,
	account: Account,
	ids: readonly string[],
	as: string
): Promise<Leaving> {
	const rows: Record<string, string>[] = [];
	for (const [n, id] of readable(house, account, ids).entries()) {
		if (n % 20 === 19) await new Promise((next) => setImmediate(next));
		const state = packetState(house.db, id);
		if (state.status === 'none') continue;
		rows.push({
			reference: state.reference,
			title: state.plan.title,
			state: state.status,
			ended: isOpen(state) ? '' : state.at.slice(0, 10),
			...answersByKey(state)
		});
	}
	const columns = [...new Set(['reference', 'title', 'state', 'ended', ...rows.flatMap((row) => Object.keys(row))])];
	return asFile(
		'Answers',
		columns,
		rows.map((row) => columns.map((key) => row[key] ?? '')),
		as
	);
}

/** The list itself. */
export function listOfMany(house: House, account: Account, ids: readonly string[], as: string): Promise<Leaving> {
	const columns = [
		'reference',
		'title',
		'own reference',
		'type',
		'folder',
		'people',
		'state',
		'sent',
		'ended',
		'term ends',
		'kept until',
		'template',
		'sent by',
		'bytes',
		'lies in'
	];
	const rows = rowsOf(house.db, readable(house, account, ids)).map((row) => [
		row.reference,
		row.title,
		row.ownReference,
		row.type,
		row.folder,
		row.thread
			.flat()
			.map((person) => person.name)
			.join(', '),
		row.status,
		row.sentAt.slice(0, 10),
		row.endedAt?.slice(0, 10) ?? '',
		row.termEnd ?? '',
		row.keptUntil ?? '',
		row.templateTitle,
		row.sender,
		String(row.size),
		row.put ?? 'records'
	]);
	return asFile('Records', columns, rows, as);
}
