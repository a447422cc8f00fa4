import { beforeAll, describe, expect, it } from 'vitest';
import { mails, ok, realPlan, testHouse, type TestHouse } from '../../../../e2e/kit/house';
import { csv, stewards } from '../../../../demo/stewards';
import { field } from '../../../../e2e/kit/plans';
import { checkData } from '../check';
import { newTemplate, putInUse } from '../templates';
import { batches, newBatch, readBatch, replaceSheet, runBatch, settle, sheetBack, verdictsOf } from './index';
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

const begin = (lines: string[][]) => ok(newBatch(t.house, t.odile, template, 'stewards.csv', csv(lines))).id;
function counts(id: string): Record<string, number> {
	const batch = ok(readBatch(t.house, id));
	const { verdicts } = ok(verdictsOf(t.house, t.odile, batch));
	return verdicts.reduce<Record<string, number>>((all, { is }) => ({ ...all, [is]: (all[is] ?? 0) + 1 }), {});
}
const packets = () => t.house.db.prepare<[], { n: number }>('SELECT count(*) AS n FROM packets').get()!.n;

describe('a batch', () => {
	it('sends the worked example once: what is ready, each a packet; run again, nobody gets a second one', async () => {
		const id = begin(stewards());
		ok(settle(t.house, id, { filter: 'status = "confirmed"' }));
		expect(counts(id)).toEqual({ ready: 53, 'left out': 5, faulty: 4, twice: 2 });
		expect(ok(runBatch(t.house, t.odile, id))).toEqual({ wanted: 53 });
		expect([ok(readBatch(t.house, id)).running, runBatch(t.house, t.odile, id)]).toMatchObject([
			true,
			{ code: 'batch-runs' }
		]);
		expect(settle(t.house, id, { filter: '' })).toMatchObject({ code: 'batch-runs' });
		await t.runner.drain();
		expect(packets()).toBe(53);
		expect(ok(readBatch(t.house, id))).toMatchObject({ running: false, wanted: 53, sent: 53, faults: {} });
		expect(mails(t.house, 's5@post.example')).toHaveLength(1);
		expect(mails(t.house, t.odile.email).at(-1)!.subject).toBe('To sign: Steward handbook');
		expect(runBatch(t.house, t.odile, id)).toMatchObject({ code: 'nothing-ready' });
		// which of the two is meant is chosen, and goes
		ok(settle(t.house, id, { chosen: [51] }));
		ok(runBatch(t.house, t.odile, id));
		await t.runner.drain();
		expect([packets(), counts(id)['gone']]).toEqual([54, 55]);
		expect(checkData(t.house.db).faults).toEqual([]);
		expect(batches(t.house)[0]).toMatchObject({ id, name: 'stewards.csv', rows: 64, gone: 54, running: 0 });
	});
	it('a newer sheet takes its place: only what is new goes, also where the columns stand otherwise', async () => {
		const id = begin([
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
		expect(replaceSheet(t.house, t.odile, id, csv(newer))).toBeNull();
		expect(counts(id)).toEqual({ gone: 1, ready: 1 });
		ok(runBatch(t.house, t.odile, id));
		await t.runner.drain();
		expect([packets() - before, mails(t.house, 'ana@post.example').length]).toEqual([1, 1]);
	});
	it('a row that is refused when it is tried says why, and the others go', async () => {
		const id = begin([
			['Name', 'E-mail', 'Shift'],
			['Cleo', 'cleo@post.example', 'early'],
			['Dee', 'dee@post.example', 'ᚠᚢᚦ']
		]);
		ok(runBatch(t.house, t.odile, id));
		await t.runner.drain();
		const batch = ok(readBatch(t.house, id));
		expect([batch.sent, batch.running, Object.keys(batch.faults)]).toEqual([1, false, ['1']]);
		expect(batch.faults[1]).toContain('ᚠ');
		const back = ok(sheetBack(t.house, t.odile, id)).split('\r\n');
		expect(back[0]).toBe('Name,E-mail,Shift,Pellum: state,Pellum: packet');
		expect(back[1]).toMatch(/^Cleo,cleo@post\.example,early,out,http:\/\/127\.0\.0\.1:1\/packets\/\w+$/);
	});
	it('stopped in the middle, it goes on where it was', async () => {
		const id = begin([['Name', 'E-mail'], ...Array.from({ length: 45 }, (_, i) => [`N${i}`, `n${i}@post.example`])]);
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
		['that is too large', new Uint8Array(5 * 1024 * 1024 + 1), 'sheet-too-large']
	])('a sheet %s is refused', (_what, bytes, code) => {
		expect(newBatch(t.house, t.odile, template, 'x.csv', bytes)).toMatchObject({ code });
	});
	it('is read with semicolons, quotes, and the letters of an older spreadsheet', () => {
		const old = Uint8Array.from(Buffer.from('Name;E-mail\r\n"Weiß; Jürg";j@post.example\r\n', 'latin1'));
		const id = ok(newBatch(t.house, t.odile, template, 'old.csv', old)).id;
		expect(ok(readBatch(t.house, id)).sheet.rows).toEqual([['Weiß; Jürg', 'j@post.example']]);
		expect(settle(t.house, id, { without: [7] })).toMatchObject({ code: 'no-cell' });
		expect(readBatch(t.house, 'nowhere')).toMatchObject({ code: 'no-batch' });
	});
	it('says of each row how it stands', () => {
		expect([
			saidOfRow({ is: 'ready', given: {}, own: true }, undefined, undefined),
			saidOfRow({ is: 'twice', rows: [51] }, undefined, undefined),
			saidOfRow({ is: 'left out', why: 'filter' }, undefined, undefined),
			saidOfRow({ is: 'gone', packet: 'k' }, undefined, 'completed')
		]).toEqual([
			'ready; this is you',
			'the same address as row 53: which is meant?',
			'left out by the filter',
			'completed'
		]);
	});
});
