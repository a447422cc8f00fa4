import ExcelJS from 'exceljs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { account, idle, mails, ok, realPlan, signs, testHouse, type TestHouse } from '../../../../e2e/kit/house';
import { csv, stewards } from '../../../../demo/stewards';
import { strToU8, zipSync } from 'fflate';
import { hasBlob } from '../blobs';
import type { Account } from '../accounts';
import { checkData } from '../check';
import { datesAsCalendar } from '../dates';
import { countOut, needsYou } from '../desk';
import { packetPage } from '../lists';
import { organisation, setOrganisation } from '../settings';
import { newTemplate, putInUse } from '../templates';
import { closePool, tableInWorker } from '../../press';
import { field } from '../../../../e2e/kit/plans';
import {
	batches,
	batchLines,
	batchRows,
	chooseSheet,
	comingIn,
	forAllOut,
	goOn,
	newBatch,
	pauseRun,
	putRight,
	readBatch,
	readySheet,
	replaceSheet,
	runBatch,
	settle,
	sheetBack,
	standingOf,
	stopRun,
	verdictsOf
} from './index';
import { saidOfRow } from './standing';

let t: TestHouse;
let template: string;
beforeAll(async () => {
	t = await testHouse();
	const plan = await realPlan(t.house, [['steward']]);
	const draft = newTemplate(
		t.house,
		t.odile,
		{
			...plan,
			people: plan.people.map((p) => ({ ...p, role: 'Steward', name: '', email: '' })),
			fields: [...plan.fields, field('shift', 'text', 'sender', { key: 'shift', label: 'Shift', required: false })]
		},
		'Steward handbook'
	);
	template = ok(putInUse(t.house, t.odile, draft.id, draft.revision, 'first')).template;
});

afterAll(closePool);

const begin = async (lines: string[][]) =>
	ok(await newBatch(t.house, t.odile, template, 'stewards.csv', csv(lines))).id;
const back = async (id: string) => new TextDecoder('utf-8').decode(ok(await sheetBack(t.house, t.odile, id)).bytes);
function counts(id: string): Record<string, number> {
	const batch = ok(readBatch(t.house, id));
	const { verdicts } = ok(verdictsOf(t.house, t.odile, batch));
	return verdicts.reduce<Record<string, number>>((all, { is }) => ({ ...all, [is]: (all[is] ?? 0) + 1 }), {});
}
const packets = () => t.house.db.prepare<[], { n: number }>('SELECT count(*) AS n FROM packets').get()!.n;

describe('a batch', () => {
	it('sends the worked example once: what is ready, each a packet; run again, nobody gets a second one', async () => {
		const id = await begin(stewards());
		ok(settle(t.house, id, { filter: 'status = "confirmed"' }));
		expect(counts(id)).toEqual({ ready: 53, 'left out': 5, faulty: 4, twice: 2 });
		expect(ok(runBatch(t.house, t.odile, id))).toEqual({ wanted: 53 });
		expect([ok(readBatch(t.house, id)).going, runBatch(t.house, t.odile, id)]).toMatchObject([
			'goes',
			{ code: 'batch-runs' }
		]);
		expect(settle(t.house, id, { filter: '' })).toMatchObject({ code: 'batch-runs' });
		await t.runner.drain();
		expect(packets()).toBe(53);
		expect(ok(readBatch(t.house, id))).toMatchObject({ going: 'rests', wanted: 53, sent: 53, faults: {} });
		expect(mails(t.house, 's5@post.example')).toHaveLength(1);
		expect(mails(t.house, t.odile.email).at(-1)!.subject).toBe('To sign: Steward handbook');
		expect(runBatch(t.house, t.odile, id)).toMatchObject({ code: 'nothing-ready' });
		// which of the two is meant is chosen, and goes
		ok(settle(t.house, id, { chosen: [51] }));
		ok(runBatch(t.house, t.odile, id));
		await t.runner.drain();
		expect([packets(), counts(id)['gone']]).toEqual([54, 55]);
		expect(checkData(t.house.db).faults).toEqual([]);
		const other = await account(t.house, 'Juno Abernathy', 'juno@brindlevale.example', 'preparer');
		expect(batches(t.house, other)).toEqual([]);
		expect(batches(t.house, t.odile)[0]).toMatchObject({ id, name: 'stewards.csv', rows: 64, gone: 54, running: 0 });
	});
	it('a newer sheet takes its place: only what is new goes, also where the columns stand otherwise', async () => {
		const id = await begin([
			['Name', 'E-mail'],
			['Ana', 'ana@post.example']
		]);
		ok(runBatch(t.house, t.odile, id));
		await t.runner.drain();
		const before = packets();
		const newer = [
			['E-mail', 'Steward', 'Shift'],
			['ANA@post.example', 'Ana', 'early'],
			['ben@post.example', 'Ben', 'late']
		];
		const old = ok(readBatch(t.house, id)).origin.file;
		expect(await replaceSheet(t.house, t.odile, id, csv(newer))).toBeNull();
		// the older sheet is not kept
		expect([hasBlob(t.house.db, old), hasBlob(t.house.db, ok(readBatch(t.house, id)).origin.file)]).toEqual([
			false,
			true
		]);
		expect(counts(id)).toEqual({ gone: 1, ready: 1 });
		ok(runBatch(t.house, t.odile, id));
		await t.runner.drain();
		expect([packets() - before, mails(t.house, 'ana@post.example').length]).toEqual([1, 1]);
	});
	it('a row that is refused when it is tried says why, and the others go', async () => {
		const id = await begin([
			['Name', 'E-mail', 'Shift'],
			['Cleo', 'cleo@post.example', 'early'],
			['Dee', 'dee@post.example', 'ᚠᚢᚦ']
		]);
		ok(runBatch(t.house, t.odile, id));
		await t.runner.drain();
		const batch = ok(readBatch(t.house, id));
		expect([batch.sent, batch.failed, batch.going, Object.keys(batch.faults)]).toEqual([1, 1, 'rests', ['1']]);
		expect(batch.faults[1]).toContain('ᚠ');
		const [heads, cleo, dee] = (await back(id)).split('\r\n');
		expect(heads).toContain(
			'Name,E-mail,Shift,Pellum: packet,Pellum: state,Pellum: since,Pellum: who has it,Pellum: fault'
		);
		expect(cleo).toMatch(/^Cleo,cleo@post\.example,early,http:\/\/127\.0\.0\.1:1\/packets\/\w+,out,2026-11-24,Cleo,,$/);
		expect(dee).toContain(',not sent,');
	});
	it('stopped in the middle, it goes on where it was', async () => {
		const id = await begin([
			['Name', 'E-mail'],
			...Array.from({ length: 45 }, (_, i) => [`N${i}`, `n${i}@post.example`])
		]);
		ok(runBatch(t.house, t.odile, id));
		const job = t.house.db
			.prepare<[], { id: number }>("SELECT id FROM jobs WHERE kind = 'batch' AND done_at IS NULL")
			.get()!;
		await t.runner.drain();
		// the same job once more, as after a crash that came before it was noted as done
		t.house.db.prepare('UPDATE jobs SET done_at = NULL WHERE id = ?').run(job.id);
		await t.runner.drain();
		expect(counts(id)).toEqual({ gone: 45 });
		for (const n of [0, 19, 20, 44]) expect(mails(t.house, `n${n}@post.example`)).toHaveLength(1);
	});
	it.each([
		['of headings only', csv([['Name', 'E-mail']]), 'sheet-empty'],
		['of nothing', new Uint8Array(), 'sheet-empty'],
		['that is no text', new Uint8Array([80, 75, 3, 4, 0, 0, 0]), 'sheet-unreadable'],
		['of too many rows', csv([['Name'], ...Array.from({ length: 10_001 }, (_, i) => [`N${i}`])]), 'sheet-too-long'],
		['that is too large', new Uint8Array(10 * 1024 * 1024 + 1), 'sheet-too-large']
	])('a sheet %s is refused', async (_what, bytes, code) => {
		expect(await newBatch(t.house, t.odile, template, 'x.csv', bytes)).toMatchObject({ code });
	});
	it('is read with semicolons, quotes, and the letters of an older spreadsheet', async () => {
		const old = Uint8Array.from(Buffer.from('Name;E-mail\r\n"Weiß; Jürg";j@post.example\r\n', 'latin1'));
		const id = ok(await newBatch(t.house, t.odile, template, 'old.csv', old)).id;
		expect(ok(readBatch(t.house, id)).sheet.rows).toEqual([['Weiß; Jürg', 'j@post.example']]);
		expect(settle(t.house, id, { without: [7] })).toMatchObject({ code: 'no-cell' });
		expect(readBatch(t.house, 'nowhere')).toMatchObject({ code: 'no-batch' });
	});
	it('says of each row how it stands', () => {
		expect([
			saidOfRow({ is: 'ready', given: {}, own: true }, undefined, undefined, []),
			saidOfRow({ is: 'twice', rows: [1] }, undefined, undefined, [52, 53]),
			saidOfRow({ is: 'left out', why: 'filter' }, undefined, undefined, []),
			saidOfRow({ is: 'gone', packet: 'k', changed: ['Shift'] }, undefined, 'completed', [])
		]).toEqual([
			'ready; this is you',
			'the same address as row 53: which is meant?',
			'left out by the filter',
			'completed; now with another Shift, which was not sent'
		]);
	});
});

/** A workbook as spreadsheets write it: a title above, days and money typed, a formula, an empty sheet before the one meant. */
async function workbook(): Promise<Uint8Array> {
	const book = new ExcelJS.Workbook();
	book.addWorksheet('Cover');
	const sheet = book.addWorksheet('Stewards');
	sheet.addRow(['Stewards, winter 2026']);
	sheet.mergeCells('A1:D1');
	sheet.addRow([]);
	sheet.addRow(['First name', 'Surname', 'Mail', 'Shift']);
	sheet.addRow(['Idris', 'Kowal', { text: 'idris@post.example', hyperlink: 'mailto:idris@post.example' }, 'early']);
	sheet.addRow(['Tess', 'Marlow', 'tess@post', { formula: '"la"&"te"', result: 'late' }]);
	sheet.addRow(['Ola', 'Brandt', 'ola@post.example', new Date(Date.UTC(2026, 11, 24))]);
	book.addWorksheet('Others').addRow(['Name', 'Mail']);
	book.getWorksheet('Others')!.addRow(['Noor', 'noor@post.example']);
	return new Uint8Array(await book.xlsx.writeBuffer());
}

describe('a workbook', () => {
	it('is read where its table begins; a cell is put right in place; it comes back as itself, with columns that never run', async () => {
		const id = ok(await newBatch(t.house, t.odile, template, 'winter.xlsx', await workbook())).id;
		const batch = ok(readBatch(t.house, id));
		expect(batch.origin).toMatchObject({
			kind: 'xlsx',
			sheet: 'Stewards',
			sheets: ['Cover', 'Stewards', 'Others'],
			heads: 3
		});
		expect(batch.sheet).toMatchObject({ lines: [4, 5, 6], columns: ['First name', 'Surname', 'Mail', 'Shift'] });
		expect(batch.sheet.rows.map((row) => row[3])).toEqual(['early', 'late', '2026-12-24']);
		expect(counts(id)).toEqual({ ready: 2, faulty: 1 });
		expect(putRight(t.house, id, 1, 2, 'tess@post.example')).toBeNull();
		expect(putRight(t.house, id, 1, 9, 'x')).toMatchObject({ code: 'no-cell' });
		expect(counts(id)).toEqual({ ready: 3 });
		expect(putRight(t.house, id, 2, 3, '=1+1')).toBeNull();
		ok(runBatch(t.house, t.odile, id));
		await t.runner.drain();
		const { bytes, media } = ok(await sheetBack(t.house, t.odile, id));
		expect(media).toContain('spreadsheetml');
		const book = new ExcelJS.Workbook();
		await book.xlsx.load(Buffer.from(bytes) as unknown as ArrayBuffer);
		expect(book.worksheets.map((one) => one.name)).toEqual(['Cover', 'Stewards', 'Others']);
		const sheet = book.getWorksheet('Stewards')!;
		// what was there is there as it was
		expect(sheet.getCell('D5').value).toMatchObject({ formula: '"la"&"te"', result: 'late' });
		expect(sheet.getCell('E3').value).toBe('Pellum: packet');
		expect(sheet.getCell('F5').value).toBe('out');
		expect(sheet.getCell('J5').value).toBe('Mail: tess@post → tess@post.example');
		expect(sheet.getCell('J6').value).toBe('Shift: 2026-12-24 → =1+1');
		expect(sheet.getCell('J6').type).toBe(ExcelJS.ValueType.String);
		// another sheet of it
		expect(await chooseSheet(t.house, t.odile, id, 'Others')).toBeNull();
		expect(counts(id)).toEqual({ ready: 1 });
		expect(await chooseSheet(t.house, t.odile, id, 'Nowhere')).toMatchObject({ code: 'no-such-sheet' });
	});
	it('can be had to fill in: heads, an example, what each takes', async () => {
		const { bytes, name } = ok(await readySheet(t.house, t.odile, template));
		expect(name).toBe('Steward handbook.xlsx');
		const table = ok(await tableInWorker(bytes));
		expect(table.lines[0]).toEqual(['Steward: name', 'Steward: e-mail', 'Shift']);
		// what it asks for is matched when it comes in
		const filled = [...table.lines.slice(0, 1), ['Ana', 'ana2@post.example', 'late']];
		const id = await begin(filled);
		expect(counts(id)).toEqual({ ready: 1 });
	});
	it.each<[string, () => Promise<Uint8Array> | Uint8Array, string]>([
		['with a password', () => Uint8Array.from([0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1]), 'sheet-shut'],
		['that is a ZIP of something else', () => zipSync({ 'a.txt': new Uint8Array(5) }), 'sheet-unreadable'],
		['cut off', async () => (await workbook()).slice(0, 900), 'sheet-unreadable'],
		['of a million rows', () => book('<row r="1"/>'.repeat(1_000_000)), 'sheet-too-long'],
		[
			'of 16,384 columns',
			async () => {
				const wide = new ExcelJS.Workbook();
				wide.addWorksheet('a').addRow(Array.from({ length: 16_384 }, (_, i) => `h${i}`));
				return new Uint8Array(await wide.xlsx.writeBuffer());
			},
			'sheet-too-long'
		],
		['that is a bomb', () => book(' '.repeat(160 * 1024 * 1024)), 'sheet-too-heavy']
	])('%s is refused in a sentence', async (_what, made, code) => {
		expect(await newBatch(t.house, t.odile, template, 'x.xlsx', await made())).toMatchObject({ code });
	});
	it.each<[string, Uint8Array]>([
		['UTF-16 with its mark', Uint8Array.from(Buffer.from('\ufeffName;E-mail\r\nJürg;j@post.example', 'utf16le'))],
		['UTF-16 without', Uint8Array.from(Buffer.from('Name\tE-mail\r\nJürg\tj@post.example', 'utf16le'))],
		['bars between', new TextEncoder().encode('Name|E-mail\nJürg|j@post.example\n')]
	])('text in %s is read', async (_what, bytes) => {
		const id = ok(await newBatch(t.house, t.odile, template, 'x.csv', bytes)).id;
		expect(ok(readBatch(t.house, id)).sheet.rows).toEqual([['Jürg', 'j@post.example']]);
	});
});

/** A workbook whose only sheet has this inside. */
const book = (rows: string) =>
	zipSync({
		'[Content_Types].xml': new Uint8Array(),
		'xl/workbook.xml': strToU8('<workbook/>'),
		'xl/worksheets/sheet1.xml': strToU8(`<worksheet><sheetData>${rows}</sheetData></worksheet>`)
	});

describe('a run', () => {
	const people = (n: number, from = 0) => [
		['Name', 'E-mail', 'Shift'],
		...Array.from({ length: n }, (_, i) => [`R${from + i}`, `run${from + i}@post.example`, 'early'])
	];
	it('is paused, goes on and is stopped; what has gone stays gone, and nobody gets two', async () => {
		const id = await begin(people(30));
		ok(runBatch(t.house, t.odile, id));
		expect(pauseRun(t.house, id)).toBeNull();
		await t.runner.drain();
		expect(ok(readBatch(t.house, id))).toMatchObject({ going: 'pauses', sent: 0 });
		expect(settle(t.house, id, { filter: '' })).toMatchObject({ code: 'batch-runs' });
		expect(goOn(t.house, t.odile, id)).toBeNull();
		expect(goOn(t.house, t.odile, id)).toMatchObject({ code: 'batch-rests' });
		await t.runner.drain();
		expect(ok(readBatch(t.house, id))).toMatchObject({ going: 'rests', sent: 30 });
		expect(pauseRun(t.house, id)).toMatchObject({ code: 'batch-rests' });
		await replaceSheet(t.house, t.odile, id, csv(people(35)));
		ok(runBatch(t.house, t.odile, id));
		stopRun(t.house, { batch: id });
		await t.runner.drain();
		expect([ok(readBatch(t.house, id)).going, counts(id)]).toEqual(['rests', { gone: 30, ready: 5 }]);
	});
	it('is paused, gone on with and stopped before the first has gone: what was shown is kept first', async () => {
		const id = await begin([
			['Name', 'E-mail'],
			...Array.from({ length: 5 }, (_, i) => [`B ${i}`, `b${i}@post.example`])
		]);
		const before = packets();
		ok(runBatch(t.house, t.odile, id));
		// none has gone, and none is said to have
		expect(counts(id)).toEqual({ ready: 5 });
		expect(ok(readBatch(t.house, id))).toMatchObject({ going: 'goes', begins: true });
		expect(pauseRun(t.house, id)).toBeNull();
		await idle(t);
		expect([packets() - before, ok(readBatch(t.house, id)).going]).toEqual([0, 'pauses']);
		expect(goOn(t.house, t.odile, id)).toBeNull();
		stopRun(t.house, { batch: id });
		await idle(t);
		expect([packets() - before, ok(readBatch(t.house, id)).going]).toEqual([0, 'rests']);
		ok(runBatch(t.house, t.odile, id));
		pauseRun(t.house, id);
		expect(goOn(t.house, t.odile, id)).toBeNull();
		await idle(t);
		expect([packets() - before, ok(readBatch(t.house, id))]).toMatchObject([5, { going: 'rests', sent: 5 }]);
	});
	it('goes no faster than the office wants', async () => {
		ok(setOrganisation(t.house.db, { ...organisation(t.house.db), pace: 10 }));
		const id = await begin(people(25, 100));
		ok(runBatch(t.house, t.odile, id));
		const sent = () => ok(readBatch(t.house, id)).sent;
		await t.runner.drain();
		expect(sent()).toBe(10);
		t.clock.now += 59_000;
		await t.runner.drain();
		expect(sent()).toBe(10);
		t.clock.now += 1000;
		await t.runner.drain();
		expect(sent()).toBe(20);
		t.clock.now += 60_000;
		await t.runner.drain();
		expect([sent(), ok(readBatch(t.house, id)).going]).toEqual([25, 'rests']);
		const { pace: _pace, ...rest } = organisation(t.house.db);
		ok(setOrganisation(t.house.db, rest));
	});
	it('stops with a sentence when the template is changed or binned meanwhile, and sends what was shown', async () => {
		const id = await begin(people(3, 200));
		ok(runBatch(t.house, t.odile, id));
		t.house.db.prepare('UPDATE templates SET binned_at = ? WHERE id = ?').run('2026-11-24T09:00:00.000Z', template);
		await t.runner.drain();
		expect(ok(readBatch(t.house, id))).toMatchObject({
			going: 'rests',
			sent: 0,
			stopped: expect.stringContaining('bin')
		});
		t.house.db.prepare('UPDATE templates SET binned_at = NULL WHERE id = ?').run(template);
		expect(counts(id)).toEqual({ ready: 3 });
	});
	it('afterwards tells who has and who hasn’t, reminds those, and withdraws what is left', async () => {
		const id = await begin(people(4, 300));
		ok(runBatch(t.house, t.odile, id));
		await t.runner.drain();
		// letters are asked for by the last rows
		await t.runner.drain();
		await signs(t, 'run300@post.example');
		expect(standingOf(t.house, id)).toMatchObject({ have: 1, out: 3, ended: 0, longest: expect.any(String) });
		const listed = (show: string) => {
			const batch = ok(readBatch(t.house, id));
			const { verdicts } = ok(verdictsOf(t.house, t.odile, batch));
			const { counts, rows } = batchRows(t.house, batch, verdicts, new URLSearchParams({ show }));
			return [counts[show], rows.map(({ line, said }) => `${line} ${said}`)];
		};
		expect([listed('have'), listed('out')]).toEqual([
			[1, ['2 completed']],
			[3, ['3 out', '4 out', '5 out']]
		]);
		expect(comingIn(t.house, id)).toEqual([
			{ day: new Date(t.clock.now).toISOString().slice(0, 10), sent: 4, have: 1 }
		]);
		t.clock.now += 7_200_000;
		expect(ok(forAllOut(t.house, t.odile, id, 'remind'))).toEqual({ asked: 3 });
		await t.runner.drain();
		await t.runner.drain();
		const letters = () => [300, 301, 302, 303].map((n) => mails(t.house, `run${n}@post.example`).length);
		const before = letters();
		// once more within the hour: nobody hears it
		ok(forAllOut(t.house, t.odile, id, 'remind'));
		await t.runner.drain();
		await t.runner.drain();
		expect(letters()).toEqual(before);
		expect(before.slice(1)).toEqual([2, 2, 2]);
		expect(forAllOut(t.house, t.odile, id, 'withdraw', ' ')).toMatchObject({ code: 'reason-missing' });
		ok(forAllOut(t.house, t.odile, id, 'withdraw', 'The season is off'));
		await t.runner.drain();
		expect(standingOf(t.house, id)).toMatchObject({ have: 1, out: 0, ended: 3 });
		expect(forAllOut(t.house, t.odile, id, 'remind')).toMatchObject({ code: 'nothing-out' });
		expect(checkData(t.house.db).faults).toEqual([]);
	});
	it('is one line among what is out: its packets stand in no other list, nor one by one among what needs somebody', async () => {
		const alone = packetPage(t.house, t.odile, { list: 'open' }).rows.length;
		const counted = countOut(t.house, t.odile);
		const id = await begin(people(4, 600));
		ok(runBatch(t.house, t.odile, id));
		await t.runner.drain();
		await t.runner.drain();
		await signs(t, 'run600@post.example');
		t.house.db
			.prepare(
				'UPDATE packets SET unreachable = 1 WHERE id = (SELECT packet FROM batch_packets WHERE batch = ? LIMIT 1 OFFSET 2)'
			)
			.run(id);
		const line = () => batchLines(t.house, t.odile).find((one) => one.id === id);
		expect(line()).toMatchObject({
			mine: true,
			have: 1,
			out: 3,
			ended: 0,
			unreachable: 1,
			longest: expect.any(String)
		});
		expect(packetPage(t.house, t.odile, { list: 'open' }).rows).toHaveLength(alone);
		expect(countOut(t.house, t.odile)).toBe(counted);
		expect(packetPage(t.house, t.odile, { list: 'open', filter: { batch: id } }).rows).toHaveLength(3);
		expect(needsYou(t.house, t.odile).filter(({ what }) => what === 'unreachable' || what === 'ending')).toEqual([]);
		expect(datesAsCalendar(t.house, t.odile).split(`${id}-deadline`)).toHaveLength(2);
		// in a folder that is closed to somebody it isn't told of
		const other: Account = { ...t.odile, id: 'another', email: 'other@brindlevale.example', level: 'preparer' };
		expect(batchLines(t.house, other).find((one) => one.id === id)).toMatchObject({ mine: false });
		t.house.db.prepare("INSERT INTO folders (name, open, made_at) VALUES ('Shut', 0, 'x')").run();
		t.house.db.prepare("UPDATE packets SET folder = 'Shut' WHERE batch = ?").run(id);
		expect(batchLines(t.house, other).find((one) => one.id === id)).toBeUndefined();
		// nor to somebody of the office who is only on one of its packets
		const taking: Account = { ...other, email: 'run601@post.example' };
		expect(batchLines(t.house, taking).find((one) => one.id === id)).toBeUndefined();
		t.house.db.prepare("UPDATE packets SET folder = '' WHERE batch = ?").run(id);
		t.house.db.prepare("DELETE FROM folders WHERE name = 'Shut'").run();
		// one that joined another batch would be found
		t.house.db.prepare("UPDATE packets SET batch = 'x', unreachable = 0 WHERE batch = ?").run(id);
		expect(checkData(t.house.db).faults).toHaveLength(4);
		t.house.db.prepare('UPDATE packets SET batch = ? WHERE batch = ?').run(id, 'x');
		ok(forAllOut(t.house, t.odile, id, 'withdraw', 'Enough'));
		await t.runner.drain();
		expect(line()).toBeUndefined();
	});
	it('next week’s sheet tells what has changed in rows that went, and what headings meant is remembered', async () => {
		const id = await begin([
			['Wer', 'Kontakt', 'Wann'],
			['Ana', 'wk1@post.example', 'early']
		]);
		const { setting } = ok(readBatch(t.house, id));
		const one = (column: number) => ({ columns: [column], sure: true });
		ok(settle(t.house, id, { mapping: { ...setting.mapping, 'steward.name': one(0), 'answer.shift': one(2) } }));
		ok(runBatch(t.house, t.odile, id));
		await t.runner.drain();
		const newer = [
			['Kontakt', 'Wann', 'Wer'],
			['wk1@post.example', 'late', 'Ana']
		];
		expect(await replaceSheet(t.house, t.odile, id, csv(newer))).toBeNull();
		const batch = ok(readBatch(t.house, id));
		expect(batch.setting.mapping).toMatchObject({ 'steward.name': one(2), 'answer.shift': one(1) });
		expect(ok(verdictsOf(t.house, t.odile, batch)).verdicts).toMatchObject([{ is: 'gone', changed: ['Shift'] }]);
	});
});
