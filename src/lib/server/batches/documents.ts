import { doubtsSaid, laidOut } from '../../core/plan';
import { preflightTemplate, type Paper, type Plan } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { documentKey, type RowDocument } from '../../core/sheet';
import { isLocked, withPaper, type OtherPaper } from '../../core/template';
import { fitInWorker, openBundleInWorker } from '../../press';
import { accountOf, askedBy, type Account, type AskedBy } from '../accounts';
import { keepBlob, readBlob } from '../blobs';
import { inTransaction } from '../db';
import type { House } from '../house';
import { newId } from '../ids';
import { queue } from '../jobs/outbox';
import { bareName } from '../names';
import { addPaper, readingOf } from '../papers';
import { dropUnused } from '../sweeping';
import { planForUse } from '../templates';
import { mappingFor } from './sheets';
import { readBatch } from './store';

/** Documents that rows have instead of the template's first one: taken in and laid under its fields, one after the other. */

const MOST = 1000;
const AT_A_TIME = 4;
/** So many doubts of one document are told. */
const TOLD = 3;

export interface DocumentsJob extends AskedBy {
	batch: string;
	documents: true;
	run: string;
}

export interface DocumentRow {
	key: string;
	name: string;
	state: 'waits' | 'ready' | 'doubt' | 'refused';
	say: string;
}

/** How many there are of each state, and those that somebody should look at. */
export function documentsOf(
	house: House,
	batch: string
): { counts: Record<DocumentRow['state'], number>; look: DocumentRow[] } {
	const rows = house.db
		.prepare<[string], DocumentRow>('SELECT key, name, state, say FROM batch_documents WHERE batch = ? ORDER BY key')
		.all(batch);
	const counts = { waits: 0, ready: 0, doubt: 0, refused: 0 };
	for (const { state } of rows) counts[state] += 1;
	return { counts, look: rows.filter(({ state }) => state === 'doubt' || state === 'refused').slice(0, 200) };
}

/** What rows may have, for the judging. One laid for another version of the template waits to be laid anew. */
export function documentsFor(house: House, batch: string, version: number): Map<string, RowDocument> {
	const rows = house.db
		.prepare<[string], DocumentRow & { version: number; laid: string | null }>(
			'SELECT key, name, state, say, version, laid FROM batch_documents WHERE batch = ?'
		)
		.all(batch);
	return new Map(
		rows.map(({ key, name, state, say, version: of, laid }): [string, RowDocument] => {
			if (state === 'refused') return [key, { is: 'refused', say }];
			if (state === 'waits') return [key, { is: 'waits', say: `“${name}” is being read.` }];
			if (of !== version)
				return [key, { is: 'waits', say: `The template was changed: lay the documents anew, “${name}” among them.` }];
			return [
				key,
				state === 'ready' ? { is: 'ready', document: JSON.parse(laid!) as OtherPaper } : { is: 'doubt', say }
			];
		})
	);
}

/**
 * Takes documents for rows: PDF, Word, or a ZIP of them. The same name again takes the place of the one before. Refuses
 * `documents-locked`, `too-many-documents`, and what `openBundle` does.
 */
export async function addDocuments(
	house: House,
	account: Account,
	id: string,
	files: { name: string; bytes: Uint8Array }[]
): Promise<Refusal | null> {
	const batch = readBatch(house, id);
	if (isRefusal(batch)) return batch;
	const found = planForUse(house, account, batch.template);
	if (isRefusal(found)) return found;
	if (isLocked(found.plan, 'papers') || isLocked(found.plan, 'fields'))
		return refuse(
			'documents-locked',
			'The template has its documents or fields locked, so rows can have none of their own.'
		);
	const all: { name: string; bytes: Uint8Array }[] = [];
	for (const file of files) {
		const opened = /^PK/.test(Buffer.from(file.bytes.subarray(0, 2)).toString('latin1')) && !/\.docx$/i.test(file.name);
		const inside = opened ? await openBundleInWorker(file.bytes) : [file];
		if (isRefusal(inside)) return inside;
		all.push(...inside);
	}
	return inTransaction(house.db, () => {
		const now = readBatch(house, id);
		if (isRefusal(now)) return now;
		if (now.going !== 'rests') return refuse('batch-runs', 'It is being sent. Pause or stop that first.');
		const { counts } = documentsOf(house, id);
		if (all.length + Object.values(counts).reduce((sum, n) => sum + n, 0) > MOST)
			return refuse('too-many-documents', `A batch takes ${MOST} documents at most.`);
		for (const { name, bytes } of all) keepDocument(house, id, bareName(name), bytes);
		const columns = mappingFor(house.db, batch.template, found.plan, now.sheet, true);
		const setting = {
			...now.setting,
			mapping: { ...(columns['document'] && { document: columns['document'] }), ...now.setting.mapping }
		};
		house.db
			.prepare('UPDATE batches SET setting = ?, revision = revision + 1 WHERE id = ?')
			.run(JSON.stringify(setting), id);
		ask(house, account, id);
		return null;
	});
}

function keepDocument(house: House, batch: string, name: string, bytes: Uint8Array): void {
	const key = documentKey(name);
	const before = house.db
		.prepare<[string, string], string>('SELECT file FROM batch_documents WHERE batch = ? AND key = ?')
		.pluck()
		.get(batch, key);
	// what it is, is told when it is taken in
	const file = keepBlob(house.db, bytes, 'application/octet-stream', house.now());
	house.db
		.prepare(
			`INSERT INTO batch_documents (batch, key, name, file) VALUES (?, ?, ?, ?)
			 ON CONFLICT (batch, key) DO UPDATE SET name = excluded.name, file = excluded.file, paper = NULL, state = 'waits', say = '', laid = NULL`
		)
		.run(batch, key, name, file);
	if (before && before !== file) dropUnused(house, before);
}

function ask(house: House, account: Account, batch: string): void {
	const run = newId(house.now());
	const job: DocumentsJob = { batch, ...askedBy(account), documents: true, run };
	queue(house, 'batch', `batch:${batch}:documents:${run}`, job);
	house.changes.emit('jobs');
}

/** Lays all of them anew, as after a change of the template. */
export function layAnew(house: House, account: Account, batch: string): void {
	inTransaction(house.db, () => {
		house.db
			.prepare(
				"UPDATE batch_documents SET state = 'waits', say = '', laid = NULL WHERE batch = ? AND state <> 'refused'"
			)
			.run(batch);
		changed(house, batch);
		ask(house, account, batch);
	});
}

/** Somebody has looked at one whose fields were in doubt, and takes it as it lies. */
export function acceptDocument(house: House, batch: string, key: string): Refusal | null {
	const { changes } = house.db
		.prepare("UPDATE batch_documents SET state = 'ready' WHERE batch = ? AND key = ? AND state = 'doubt'")
		.run(batch, key);
	if (changes === 0) return refuse('no-document', 'There is no such document in doubt.');
	changed(house, batch);
	return null;
}

function changed(house: House, batch: string): void {
	house.db.prepare('UPDATE batches SET revision = revision + 1 WHERE id = ?').run(batch);
	house.changes.emit('packet', '');
}

/** Takes in and lays the next few, and asks for the rest. One that can't be keeps its sentence, and the others go on. */
export async function layNext(house: House, job: DocumentsJob, done: () => void): Promise<null> {
	const account = accountOf(house, job);
	const batch = readBatch(house, job.batch);
	const found = !account || isRefusal(batch) ? null : planForUse(house, account, batch.template);
	if (!account || !found || isRefusal(found)) {
		done();
		return null;
	}
	const next = house.db
		.prepare<[string, number], { key: string; name: string; file: string }>(
			"SELECT key, name, file FROM batch_documents WHERE batch = ? AND state = 'waits' ORDER BY key LIMIT ?"
		)
		.all(job.batch, AT_A_TIME);
	const keep = house.db.prepare(
		'UPDATE batch_documents SET state = ?, say = ?, paper = ?, laid = ?, version = ? WHERE batch = ? AND key = ? AND file = ?'
	);
	for (const document of next) {
		const { state, say, laid } = await laidUnder(house, found.plan, document);
		const version = found.plan.from?.[0]?.version ?? 0;
		const kept = laid ? JSON.stringify(laid) : null;
		keep.run(state, say, laid?.next.digest ?? null, kept, version, job.batch, document.key, document.file);
	}
	inTransaction(house.db, () => {
		changed(house, job.batch);
		if (next.length === AT_A_TIME) ask(house, account, job.batch);
		done();
	});
	return null;
}

async function laidUnder(
	house: House,
	plan: Plan,
	{ name, file }: { name: string; file: string }
): Promise<{ state: DocumentRow['state']; say: string; laid?: OtherPaper }> {
	const refused = (say: string) => ({ state: 'refused' as const, say });
	const paper = plan.papers[0];
	const bytes = readBlob(house.db, file)?.bytes;
	if (!paper || !bytes) return refused(`“${name}” is not here any more. Give it again.`);
	const taken = await addPaper(house, name, new Uint8Array(bytes), { changes: 'accepted' });
	if (isRefusal(taken)) return refused(taken.say);
	if ('attached' in taken) return refused(`“${name}”: ${taken.why}`);
	const next: Omit<Paper, 'id'> = { name: taken.name, digest: taken.digest, pages: taken.pages };
	const [from, to] = [await readingOf(house, paper.digest), await readingOf(house, taken.digest)];
	const fields = plan.fields.filter((field) => field.paper === paper.id);
	if (!from || !to) return refused(`“${name}” can’t be compared with the template’s document.`);
	const fitting = await fitInWorker({
		old: { reading: from, pages: paper.pages },
		next: { reading: to, pages: taken.pages },
		fields: fields.map(({ id, page, rect, pin }) => ({ id, page, rect, ...(pin && { pin }) }))
	});
	if (isRefusal(fitting)) return refused(fitting.say);
	const all = laidOut(fields, fitting.fields);
	const doubts = all.filter((one) => !one.seen);
	const laid = { paper: paper.id, next, places: Object.fromEntries(all.map((one) => [one.field.id, one.place])) };
	// a place that somebody must have, and that is nowhere here, is no doubt
	const grave = preflightTemplate(withPaper(plan, laid)).find((finding) => !finding.mild);
	if (grave) return refused(`“${name}”: ${grave.say}`);
	if (doubts.length === 0) return { state: 'ready', say: '', laid };
	const told = doubts.slice(0, TOLD).map((one) => `${one.field.label || one.field.kind}: ${doubtsSaid(one)}`);
	const more = doubts.length > TOLD ? ` and ${doubts.length - TOLD} more` : '';
	return { state: 'doubt', say: `“${name}” wants a look: ${told.join('. ')}${more}.`, laid };
}
